# frozen_string_literal: true

require "rack/utils"

module Server
  # Refuses requests that do not come from this application's own pages.
  #
  # The host must be a loopback name, an Origin must be that host, and a write
  # must repeat in a header the token that a cookie carries. Answers get a strict
  # content security policy.
  class Guard
    HOSTS = /\A(localhost|127\.0\.0\.1|\[::1\])(:\d+)?\z/
    COOKIE = "mordant_token"
    HEADER = "HTTP_X_MORDANT_TOKEN"
    READS = %w[GET HEAD].freeze
    POLICY = "default-src 'self'; img-src 'self' blob:; style-src 'self'; script-src 'self'; connect-src 'self'; " \
             "object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'"
    HEADERS = {"content-security-policy" => POLICY, "x-content-type-options" => "nosniff", "referrer-policy" => "same-origin",
               "cross-origin-opener-policy" => "same-origin", "cross-origin-resource-policy" => "same-origin"}.freeze

    def initialize(app)
      @app = app
    end

    def call(env)
      reason = refusal(env)
      return [403, {"content-type" => "application/json"}, [{error: reason}.to_json]] if reason

      status, headers, body = @app.call(env)
      headers.merge!(HEADERS)
      unless token(env)
        headers["set-cookie"] = "#{COOKIE}=#{SecureRandom.urlsafe_base64(24)}; Path=/; SameSite=Strict"
      end
      [status, headers, body]
    end

    private

    def refusal(env)
      return "this address is not served" unless HOSTS.match?(env["HTTP_HOST"].to_s)

      origin = env["HTTP_ORIGIN"]
      return "requests from other sites are refused" if origin && origin != "http://#{env["HTTP_HOST"]}"
      return if READS.include?(env["REQUEST_METHOD"])
      return if token(env) && Rack::Utils.secure_compare(token(env), env[HEADER].to_s)

      "the page is out of date; load it again"
    end

    def token(env) = Rack::Utils.parse_cookies(env)[COOKIE].to_s.then { |value| value unless value.empty? }
  end
end
