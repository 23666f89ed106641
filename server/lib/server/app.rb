# frozen_string_literal: true

require "rack/protection"

module Server
  # The HTTP side: JSON under /api, everything else is the built front end.
  #
  # Routes live in routes/, one module a concept, each a Sinatra extension.
  class App < Sinatra::Base
    WEB = File.join(ROOT, "web/dist")

    set :environment, :production
    set :show_exceptions, false
    set :raise_errors, false
    set :dump_errors, false
    set :logging, false
    set :static, false
    set :protection, false # Guard does what is needed here
    set :host_authorization, permitted_hosts: []

    # Helpers of all modules of routes stand beside each other: one that would take another's place, or
    # one of Sinatra's, is refused when the application is loaded.
    #
    # @raise [NameError]
    def self.helpers(*modules, &block)
      [*modules, *(Module.new(&block) if block)].each do |one|
        taken = (one.instance_methods(false) + one.private_instance_methods(false)).find { |name| method_defined?(name) || private_method_defined?(name) }
        raise NameError, "there is a helper #{taken} already" if taken

        include one
      end
    end

    helpers Requests
    use Guard

    # @param method [String]
    # @param path [String] as it was asked for
    # @return [Boolean] whether something is done there
    def self.takes?(method, path) = routes.fetch(method, []).any? { |pattern, *| pattern.match(path) }

    [ProjectRoutes, SettingsRoutes, CorrectionRoutes, PickRoutes, MediaRoutes, CutRoutes, AssemblyRoutes, RecipeRoutes, FamilyRoutes, SwatchRoutes, StillRoutes, PictureRoutes, BakeRoutes, OrderRoutes, ErrandRoutes, EventRoutes, RenditionRoutes, ScreenRoutes, PeopleRoutes, ReviewRoutes].each { |routes| register routes }

    before "/api/*" do
      content_type :json
      Access.check(request.env)
      odd = [["path", request.path_info], *params.flat_map { |name, value| [["query", name], [name, value]] }].find { |_, value| value.is_a?(String) && (!value.valid_encoding? || value.include?("\0")) }
      raise Mordant::ParameterError.new(path: odd.first, expected: "text in UTF-8", found: "other bytes") if odd
      kind = params.find { |name, value| !value.is_a?(String) && name != "splat" }
      raise Mordant::ParameterError.new(path: kind.first, expected: "one text", found: kind.last) if kind
    end

    after { Present.reset }
    after { ActiveRecord::Base.connection_handler.clear_active_connections! }

    get "/api/*" do
      halt 404, {error: "there is nothing at #{request.path}"}.to_json
    end

    # The front end finds its own way among its rooms.
    get "*" do
      path = File.expand_path(".#{request.path_info}", WEB)
      path = File.join(WEB, "index.html") unless path.start_with?("#{WEB}/") && File.file?(path)
      unless File.file?(path)
        halt 503, {"content-type" => "text/plain"}, "The front end is not built; bin/start builds it.\n"
      end
      cache_control(*(request.path_info.start_with?("/assets/") ? [:public, :immutable, {max_age: 31_536_000}] : [:no_cache]))
      send_file path
    end

    error(Access::Unknown) { |e| answer_error(401, e, sign_in: true) }
    error(Access::Refused) { |e| answer_error(403, e) }
    error(Try::TooMany) do |e|
      headers "retry-after" => e.seconds.to_s
      answer_error(429, e)
    end
    error(Record::Missing) { |e| answer_error(404, e) }
    error(Recipe::Conflict) { |e| answer_error(409, e, recipe: e.recipe.to_h) }
    error(OwnHistory::BuiltOn) { |e| answer_error(409, e) }
    error(Undoable::Stale) { |e| answer_error(409, e, stale: true) }
    error(Screen::Engaged) { |e| answer_error(409, e) }
    error(ProjectSettings::Unconfirmed) { |e| answer_error(409, e, confirm: true) }
    error(Mordant::ParameterError) { |e| answer_error(422, e, path: e.path, expected: e.expected, words: Spoken.of(e)) }
    error(Mordant::UnknownIdError) { |e| answer_error(422, e, path: e.family) }
    error(Mordant::MediaError) { |e| answer_error(422, e, path: e.path) }
    error(Mordant::Error) { |e| answer_error(422, e) }
    error(Pictures::Gate::Overtaken) { halt 204 }
    error(Events::TooMany) { |e| answer_error(503, e) }
    error do |e|
      words = Trouble.of(e)
      answer_error(503, StandardError.new(words)) if words

      warn("#{request.request_method} #{request.path}: #{e.class}: #{e.message}\n  #{e.backtrace.first(8).join("\n  ")}")
      answer_error(500, StandardError.new("something went wrong in the server; the log in var/log says what"))
    end
  end
end
