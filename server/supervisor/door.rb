# frozen_string_literal: true

require "ipaddr"
require "net/http"
require "openssl"
require_relative "environment"
require_relative "cluster"

module Supervisor
  # Where Mordant is reached: on this machine alone, or by others, and then by TLS or behind a
  # stated proxy. That others have to sign in is seen to once the database is there (server/prepare.rb).
  class Door
    LOOPBACK = /\A(127\.\d+\.\d+\.\d+|::1|localhost)\z/
    ANY = %w[0.0.0.0 ::].freeze

    # @param bind [String] address
    # @param tls [Array<String>, nil] files of certificate and key
    # @param proxy [String, nil] address that browsers go to instead
    # @param names [Array<String>] that browsers may ask for besides
    # @raise [Trouble]
    def initialize(port:, bind: "127.0.0.1", tls: nil, proxy: nil, names: [])
      @bind, @port, @proxy = bind, port, proxy
      @tls = tls && checked(tls)
      raise Trouble, "--proxy must be https://NAME, as browsers see it" if proxy && !proxy.match?(%r{\Ahttps://[\w.-]+(:\d+)?/?\z})
      raise Trouble, "others can reach #{bind}: that needs --tls CERT,KEY, or --proxy https://NAME where a proxy does it" unless loopback? || tls || proxy

      @names = [*names, *(bind unless ANY.include?(bind)), *(named if tls)].map { |name| name.include?(":") ? "[#{name}]" : name.downcase }.uniq
    end

    def loopback? = LOOPBACK.match?(@bind)

    # @return [Hash{String => String}] for the processes
    def environment
      {"MORDANT_BIND" => @bind, "MORDANT_PORT" => @port.to_s, "MORDANT_NAMES" => @names.join(","), "MORDANT_PROXY" => @proxy&.chomp("/"), "MORDANT_TLS" => @tls&.join(",")}.compact
    end

    # @return [String] for a person to open
    def address
      return "#{@proxy.chomp("/")}/" if @proxy

      "#{scheme}://#{host(@names.find { |name| name.match?(/[a-z]/) } || near)}:#{@port}/"
    end

    # @return [Boolean] whether it is up; the certificate need not be one this machine trusts
    def answers?
      Net::HTTP.start(near, @port, use_ssl: !@tls.nil?, verify_mode: OpenSSL::SSL::VERIFY_NONE) { |http| http.get("/api/here").is_a?(Net::HTTPOK) }
    rescue SystemCallError, IOError, OpenSSL::SSL::SSLError
      false
    end

    private

    def scheme = @tls ? "https" : "http"

    # Where this machine itself reaches it.
    def near = {"0.0.0.0" => "127.0.0.1", "::" => "::1"}.fetch(@bind, @bind)

    def host(name) = (name.include?(":") && !name.start_with?("[")) ? "[#{name}]" : name

    def checked(files)
      raise Trouble, "--tls takes two files: CERT,KEY" unless files.size == 2
      missing = files.find { |path| !File.readable?(path) }
      raise Trouble, "#{missing} is not there, or may not be read" if missing

      @certificate = OpenSSL::X509::Certificate.new(File.read(files.first))
      raise Trouble, "#{files.last} is not the key of the certificate #{files.first}" unless @certificate.check_private_key(OpenSSL::PKey.read(File.read(files.last)))
      raise Trouble, "the certificate #{files.first} has run out on #{@certificate.not_after.strftime("%-d %B %Y")}; --tls takes one that holds" if @certificate.not_after < Time.now

      files.map { |path| File.realpath(path) }
    rescue OpenSSL::X509::CertificateError, OpenSSL::PKey::PKeyError => e
      raise Trouble, "#{files.join(" or ")} is no PEM file of a certificate and its key (#{e.message})"
    end

    # Names and addresses that the certificate is for (RFC 5280, 4.2.1.6), else its subject's common name.
    def named
      extension = @certificate.extensions.find { |one| one.oid == "subjectAltName" }
      listed = extension ? extension.value.split(", ").filter_map { |one| one[/\A(?:DNS|IP Address):(.+)\z/, 1] } : []
      listed.empty? ? @certificate.subject.to_a.filter_map { |key, value, _| value if key == "CN" } : listed
    end
  end
end
