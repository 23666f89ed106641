# frozen_string_literal: true

require "openssl"
require "rack/utils"

module Server
  # Refuses requests that do not come from this application's own pages.
  #
  # The host must be a loopback name, an Origin must be that host, the browser must not say
  # that another site asks for data, and a write must repeat in a header the token that a
  # cookie carries, which this server has signed. Every answer has a strict content security
  # policy.
  class Guard
    HOSTS = /\A(localhost|127\.0\.0\.1|\[::1\])(:\d+)?\z/
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

    def initialize(app)
      @app = app
    end

    def call(env)
      reason = refusal(env)
      return [403, {"content-type" => "application/json", **HEADERS}, [{error: reason}.to_json]] if reason

      status, headers, body = @app.call(env)
      headers.merge!(HEADERS)
      headers["set-cookie"] = "#{COOKIE}=#{Guard.signed(SecureRandom.urlsafe_base64(24))}; Path=/; SameSite=Strict" unless token(env)
      [status, headers, body]
    end

    # @param nonce [String]
    # @return [String] with this server's signature
    def self.signed(nonce) = "#{nonce}.#{OpenSSL::HMAC.hexdigest("SHA256", Settings.secret, nonce)[0, 32]}"

    private

    def refusal(env)
      return "this address is not served" unless HOSTS.match?(env["HTTP_HOST"].to_s)

      origin = env["HTTP_ORIGIN"]
      return "requests from other sites are refused" if origin && origin != "http://#{env["HTTP_HOST"]}"
      return "requests from other sites are refused" if DATA.match?(env["PATH_INFO"].to_s) && !ASKING.include?(env["HTTP_SEC_FETCH_SITE"])
      return if READS.include?(env["REQUEST_METHOD"])
      return if token(env) && Rack::Utils.secure_compare(token(env), env[HEADER].to_s)

      "the page is out of date; load it again"
    end

    # @return [String, nil] the cookie's, if this server has signed it
    def token(env)
      value = Rack::Utils.parse_cookies(env)[COOKIE].to_s
      nonce = value.split(".", 2).first.to_s
      value if !nonce.empty? && Rack::Utils.secure_compare(value, Guard.signed(nonce))
    rescue ArgumentError
      nil # bytes that are no text
    end
  end
end
