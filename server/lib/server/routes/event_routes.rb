# frozen_string_literal: true

module Server
  # Progress of long work, as server-sent events (WHATWG HTML, 9.2).
  module EventRoutes
    LOOK_EVERY = 0.3 # seconds
    BEAT_EVERY = 15 # seconds; a write is how a browser that left is noticed
    RECENT = 50

    def self.registered(app)
      app.get "/api/projects/:id/events" do
        project = Project.fetch(params["id"])
        content_type "text/event-stream"
        cache_control :no_store
        headers "x-accel-buffering" => "no"
        stream { |out| EventRoutes.follow(project, out) }
      end
    end

    def self.follow(project, out)
      seen = {}
      beat = Time.now
      loop do
        EventRoutes.state(project).each do |key, value|
          next if seen[key] == value

          out << "event: #{key.first}\ndata: #{value.to_json}\n\n"
          seen[key] = value
        end
        if Time.now - beat > BEAT_EVERY
          out << ": here\n\n"
          beat = Time.now
        end
        sleep LOOK_EVERY
      end
    rescue IOError, SystemCallError
      nil # the browser left
    end

    def self.renders(project)
      RangeRender.joins(:cut).where(cuts: {project_id: project.id}).order(id: :desc).limit(3).to_h { |one| [["range", one.id], one.to_h] }
    end

    # @return [Hash{Array => Hash}] by kind and id, what a screen shows of it
    def self.state(project)
      ActiveRecord::Base.connection_pool.with_connection do
        ActiveRecord::Base.uncached do
          intakes = Intake.where(project:).order(id: :desc).limit(5)
          outputs = Output.joins(order: :cut).includes(order: {cut: :project}).where(cuts: {project_id: project.id}).order(id: :desc).limit(RECENT)
          intakes.to_h { |one| [["intake", one.id], one.to_h] }
            .merge(renders(project))
            .merge(outputs.to_h { |one| [["output", one.id], one.to_h.except(:seconds)] })
        end
      end
    end
  end
end
