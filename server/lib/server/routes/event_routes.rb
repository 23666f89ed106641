# frozen_string_literal: true

module Server
  # Progress of long work, told while it goes on.
  module EventRoutes
    MOST = 16 # projects of one stream

    def self.registered(app)
      # projects: their ids, with commas; none is enough to hear what is wrong with the server.
      app.get "/api/events" do
        projects = params["projects"].to_s.split(",").map { |id| Integer(id, 10, exception: false) || raise(Mordant::ParameterError.new(path: "projects", expected: "ids with commas between", found: params["projects"])) }
        raise Mordant::ParameterError.new(path: "projects", expected: "at most #{MOST}", found: projects.size) if projects.size > MOST

        every(Project.all, projects)
        Events.current.make_room(Present.sign_in&.id)
        content_type "text/event-stream"
        cache_control :no_store
        sign_in = Present.sign_in&.id
        headers "x-accel-buffering" => "no", "rack.hijack" => ->(io) { Events.current.follow(io, projects, sign_in:) }
        [].each # Puma gives the connection away instead of a body
      end
    end
  end
end
