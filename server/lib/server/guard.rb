# frozen_string_literal: true

require "openssl"
require "rack/utils"

module Server
  # Refuses requests that do not come from this application's own pages, and those that are
  # larger than what they ask for can need; by their head alone, so that no body is read for it
  # (see HeadFirst).
  #
  # The host must be a loopback name or one that was stated at the start, an Origin must be that host, the browser must not say
  # that another site asks for data, and a write must repeat in a header the token that a
  # cookie carries, which this server has signed. Every answer has a strict content security
  # policy.
  class Guard
    LOOPBACK = %w[localhost 127.0.0.1 [::1]].freeze
    HOST = /\A(\[[^\]]*\]|[^:]*)(:\d+)?\z/
    COOKIE = "mordant_token"
    HEADER = "HTTP_X_MORDANT_TOKEN"
    READS = %w[GET HEAD].freeze
    POLICY = "default-src 'self'; img-src 'self' blob:; style-src 'self'; script-src 'self'; connect-src 'self'; " \
             "object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'"
    # Who may ask for data, as browsers tell it (W3C Fetch Metadata): our own pages, or a person
    # who typed the address.
    ASKING = ["same-origin", "none", nil].freeze
    DATA = %r{\A/api/}
    HEADERS = {"content-security-policy" => POLICY, "x-content-type-options" => "nosniff", "referrer-policy" => "same-origin",
               "cross-origin-opener-policy" => "same-origin", "cross-origin-resource-policy" => "same-origin"}.freeze

    LARGEST_BODY = 2 * 1024 * 1024 # bytes
    LARGEST_FILE = 96 * 1024 * 1024
    LARGEST_STRANGER = 16 * 1024 # of whoever is not signed in where one has to be
    FILES = %r{\A/api/(luts|swatches/import|projects/\d+/stills)\z} # where one is the body

    def initialize(app)
      @app = app
    end

    def call(env)
      status, reason = Guard.refusal(env)
      return [status, {"content-type" => "application/json", "connection" => "close", **HEADERS}, [{error: reason}.to_json]] if status

      status, headers, body = @app.call(env)
      headers.merge!(HEADERS)
      unless Guard.token(env)
        token = "#{COOKIE}=#{Guard.signed(SecureRandom.urlsafe_base64(24))}; Path=/; SameSite=Strict#{"; Secure" if Settings.https?}"
        headers["set-cookie"] = [*headers["set-cookie"], token]
      end
      [status, headers, body]
    end

    class << self
      # @param nonce [String]
      # @return [String] with this server's signature
      def signed(nonce) = "#{nonce}.#{OpenSSL::HMAC.hexdigest("SHA256", Settings.secret, nonce)[0, 32]}"

      # @param env [Hash] of a request whose body may not be there yet
      # @return [Array(Integer, String), nil] status and reason
      def refusal(env)
        path = env.fetch("PATH_INFO") { env["REQUEST_PATH"] }.to_s
        reason = foreign(env, path)
        reason ? [403, reason] : out_of_place(env, path)
      end

      # @return [String, nil] the cookie's, if this server has signed it
      def token(env)
        value = Rack::Utils.parse_cookies(env)[COOKIE].to_s
        nonce = value.split(".", 2).first.to_s
        value if !nonce.empty? && Rack::Utils.secure_compare(value, signed(nonce))
      rescue ArgumentError
        nil # bytes that are no text
      end

      private

      def foreign(env, path)
        return "this address is not served" unless served?(env["HTTP_HOST"].to_s)

        origin = env["HTTP_ORIGIN"]
        return "requests from other sites are refused" if origin && origin != "#{Settings.https? ? "https" : "http"}://#{env["HTTP_HOST"]}"
        return "requests from other sites are refused" if DATA.match?(Rack::Utils.unescape_path(path).scrub("?")) && !ASKING.include?(env["HTTP_SEC_FETCH_SITE"])
        return if READS.include?(env["REQUEST_METHOD"])
        return if token(env) && Rack::Utils.secure_compare(token(env), env[HEADER].to_s)

        "the page is out of date; load it again"
      end

      def served?(host)
        name = host[HOST, 1].to_s.downcase
        LOOPBACK.include?(name) || Settings.names.include?(name)
      end

      def out_of_place(env, path)
        return [411, "a request must say how long it is"] if env["HTTP_TRANSFER_ENCODING"]

        most = most(env, path) or return [404, "there is nothing at #{path.dup.force_encoding("UTF-8").scrub("?")}"]
        [413, "a request may hold at most #{most} bytes"] if env["CONTENT_LENGTH"].to_i > most
      end

      # @return [Integer, nil] bytes of a body; nil where none is taken at all
      def most(env, path)
        method = env["REQUEST_METHOD"]
        return 0 if READS.include?(method)
        return unless path.dup.force_encoding("UTF-8").valid_encoding? && App.takes?(method, path)

        return LARGEST_STRANGER if Person.known_to_be_asked? && !SignIn.secret_of(env)

        FILES.match?(path) ? LARGEST_FILE : LARGEST_BODY
      end
    end
  end
end
