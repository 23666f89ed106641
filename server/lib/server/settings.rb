# frozen_string_literal: true

require "fileutils"
require "uri"

module Server
  # What differs between machines, from the environment that bin/start sets.
  module Settings
    module_function

    # @return [String] folder of everything that is not source: cache, deliveries, database
    def var = ENV.fetch("MORDANT_VAR", File.join(ROOT, "var"))

    # @return [String] the same for a person to read, from the checkout on where it is in there
    def var_shown = var.delete_prefix("#{ROOT}/")

    # @return [String] libpq connection string
    def database = ENV.fetch("MORDANT_DATABASE")

    # Signs the token of pages; made once for each var folder, and read by its owner alone.
    #
    # @return [String]
    def secret
      @secret ||= begin
        path = File.join(var, "secret")
        FileUtils.mkdir_p(var)
        begin
          File.open(path, File::WRONLY | File::CREAT | File::EXCL, 0o600) { |file| file.write(SecureRandom.hex(32)) }
        rescue Errno::EEXIST
          nil # it is there
        end
        File.read(path)
      end
    end

    # @return [String, nil] address of a proxy that browsers go to instead, as https://name
    def proxy = ENV["MORDANT_PROXY"]

    # @return [Boolean] whether browsers come by TLS, to here or to a proxy
    def https? = ENV.key?("MORDANT_TLS") || proxy.to_s.start_with?("https://")

    # @return [String] address that is listened on
    def bind = ENV.fetch("MORDANT_BIND", "127.0.0.1")

    # @return [Boolean] whether others than this machine can come here
    def beyond? = !bind.match?(/\A(127\.|::1\z)/) || !proxy.nil?

    # @return [Array<String>] names that browsers may ask for, besides those of loopback
    def names = @names ||= ENV.fetch("MORDANT_NAMES", "").split(",") + [proxy && URI(proxy).host].compact

    # @return [String] below which outputs are written
    def delivery = ENV.fetch("MORDANT_DELIVERY", File.join(var, "delivery"))

    # @return [String] the same for a person to read, from the checkout on where it is in there
    def delivery_shown = delivery.delete_prefix("#{ROOT}/")

    # @return [String] folder of a person's own encodings and LUTs
    def library = ENV.fetch("MORDANT_LIBRARY", File.join(var, "library"))

    # @return [String] the same for a person to read
    def library_shown = library.delete_prefix("#{ROOT}/")

    # @return [Integer] processes that answer, as puma.rb has begun them
    def web_processes = Integer(ENV.fetch("MORDANT_WEB_PROCESSES", "1"))

    # @return [String] may be deleted at any time
    def cache = File.join(var, "cache")

    # @return [Integer] bytes that working copies may hold
    def copies_limit = Integer(ENV.fetch("MORDANT_COPIES_MB", "20480")) * 1024 * 1024

    # @return [Integer] bytes the cache may hold
    def cache_limit = Integer(ENV.fetch("MORDANT_CACHE_MB", "4096")) * 1024 * 1024
  end
end
