# frozen_string_literal: true

module Server
  # What a person has to be allowed to for a request: the one place that says so. What is not
  # named here may be read by everybody who is signed in, and written by whoever grades.
  module Access
    OPEN = nil # nobody has to be signed in

    # First match counts: methods, address below /api, role.
    RULES = [
      [nil, %r{\A/(here|sign_in|sign_out)\z}, OPEN],
      [nil, %r{\A/reviews/[^/]+(/.*)?\z}, OPEN], # the link is the key, see Review
      [nil, %r{\A/people(/.*)?\z}, "administer"],
      ["DELETE", %r{\A/projects/\d+\z}, "administer"],
      [nil, %r{\A/(sign_ins(/.*)?|own_password|presence)\z}, "look"],
      ["POST", %r{\A/cuts/\d+/(picture|window|ladder|ladders|point|kept|cleaned|finished|notes)\z}, "look"],
      ["GET", %r{\A/media(/.*)?\z}, "grade"],
      ["GET", %r{\A/shots/\d+/(bake|look\..*|on_set\.tar)\z}, "grade"], # what leaves the house
      [nil, %r{\A/cuts/\d+/(orders(/.*)?|export|packages)\z}, "deliver"],
      [nil, %r{\A/(orders|outputs)/.*\z}, "deliver"],
      [nil, %r{\A/errands/\d+/file\z}, "deliver"],
      ["PUT", %r{\A/projects/\d+/presets\z}, "deliver"],
      ["DELETE", %r{\A/presets/\d+\z}, "deliver"],
      ["GET", %r{.*}, "look"]
    ].freeze
    OTHERWISE = "grade"

    # What a person who may not is told.
    NEEDS = {"grade" => "an account that may grade", "deliver" => "an account that may deliver", "administer" => "an account that administers"}.freeze

    # Nobody is signed in who has to be; answered with 401.
    class Unknown < Mordant::Error
      def initialize = super("sign in first")
    end

    # Somebody who may not; answered with 403.
    class Refused < Mordant::Error
      def initialize(role) = super("this needs #{NEEDS.fetch(role)}")
    end

    module_function

    # @param method [String]
    # @param path [String] below /api
    # @return [String, nil] one of Person::ROLES; nil: anybody
    def needed(method, path)
      method = "GET" if method == "HEAD"
      rule = RULES.find { |methods, address, _| (methods.nil? || methods == method) && address.match?(path) }
      rule ? rule.last : OTHERWISE
    end

    # Of an address as it was asked for and as it is once its escaped letters are read: routes match either.
    def strictest(method, path)
      read = Rack::Utils.unescape_path(path).force_encoding("UTF-8").scrub("?")
      [path, read].map { |one| needed(method, one.dup.force_encoding("UTF-8").scrub("?").delete_prefix("/api")) }.max_by { |role| role ? Person::ROLES.index(role) : -1 }
    end

    # Finds out who asks, and whether they may.
    #
    # @param env [Hash]
    # @raise [Unknown, Refused]
    def check(env)
      Present.reset
      needed = strictest(env["REQUEST_METHOD"], env["PATH_INFO"])
      unless Person.asked?
        raise Unknown if Settings.beyond? && needed # it refuses to start like this; for whoever takes the accounts away while it runs

        return
      end
      Present.sign_in = SignIn.of(env)
      return unless needed
      raise Unknown unless Present.person
      raise Refused, needed unless Present.person.may?(needed)
    end
  end
end
