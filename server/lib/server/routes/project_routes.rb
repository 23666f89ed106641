# frozen_string_literal: true

module Server
  # Projects, and what the core offers.
  module ProjectRoutes
    def self.registered(app)
      app.get "/api/catalogue" do
        answer(steps: Mordant::Steps.all.map(&:to_h), corrections: Mordant::Steps.corrections.map(&:to_h), contributors: Mordant::Matte.kinds.map(&:to_h), refinements: Mordant::Matte.refinements.map(&:to_h), uses: Mordant::Grade::Use.all.map(&:to_h), encodings: Mordant::Colour::Encoding.all.select(&:pictures?).map(&:to_h),
          formats: Mordant::Deliver::Format.all.map(&:to_h), burn_tokens: Mordant::Deliver::BurnIn::TOKENS, burns: Mordant::Deliver::BurnIn::PRESETS, fits: Mordant::Deliver::Sheet::FITS.map { |id, label| {id:, label:} }, tokens: Mordant::Deliver::Naming::TOKENS, delivery: Settings.delivery_shown, processes: Settings.web_processes,
          renderings: Mordant::Colour::Rendering.all.map(&:to_h), limits: Mordant::Colour::GamutLimit::ALL.map { |id, primaries| {id:, label: primaries.name} },
          canvases: Mordant::Grade::Screen::CANVASES.map { |id, encoding| {id:, label: Mordant::Colour.encoding(encoding).label} },
          materials: Mordant::Film::Materials.all.map(&:to_h), looks: Mordant::Grade::Look.all.map(&:to_h), bundles: Mordant::Grade::Look.bundles.map(&:to_h), tests: Mordant::Media::TestPicture.all.map(&:to_h), quantities: Mordant::Scopes::Quantity.all.map(&:to_h),
          solids: Mordant::Scopes::Solid::SPACES.map { |id, label| {id:, label:} }, skin_line: Mordant::Scopes::Skin::LINE,
          flags: Shot::FLAGS, wipes: Mordant::Cut::Wipe::PATTERNS.map { |number, (label, _)| {number:, label:} },
          mixing: Mordant::Deliver::Mixing::DOMAINS.map { |id, label| {id:, label:, about: Mordant::Deliver::Mixing::ABOUT.fetch(id)} }, stills: Mordant::Deliver::Still::FORMATS.map { |format| {id: format.id, label: format.label} },
          rule_fields: Mordant::Media::Assignment::FIELDS.map { |id, label| {id:, label:} })
      end

      app.get "/api/projects" do
        projects = Project.includes(:head_change, cuts: [{shots: [:recipes, :clip]}, {washes: :recipe}, {families: :recipes}]).order(:id).to_a
        Pictures::Depends.files(projects)
        answer(projects.map { |project| project.to_h(steps: {undo: nil, redo: nil}).merge(cuts: project.cuts.sort_by(&:id).map(&:summary)) })
      end

      app.get "/api/projects/:id" do
        answer(Project.fetch(params["id"]).to_h)
      end

      app.post "/api/projects" do
        body = body_json
        name = body["name"].to_s.strip
        unless name.length.between?(1, 80) && !Project.exists?(name:)
          raise Mordant::ParameterError.new(path: "name", expected: "1 to 80 characters that no project has yet", found: name)
        end
        status 201
        answer(Project.create!(name:, **made_for(body)).to_h)
      end

      # Takes a project away with its cuts and grades; footage and deliveries stay. The name is
      # said again, so that nothing goes by accident.
      app.delete "/api/projects/:id" do
        project = Project.fetch(params["id"])
        said = body_json["name"]
        raise Mordant::ParameterError.new(path: "name", expected: "its name, #{project.name}, to take it away", found: said) unless said == project.name

        project.remove
        answer(removed: project.id)
      end

      app.post "/api/projects/:id/undo" do
        step(:undo)
      end

      app.post "/api/projects/:id/redo" do
        step(:redo)
      end

      # What was done, in words; and back or on to any point of it.
      app.get "/api/projects/:id/history" do
        project = Project.fetch(params["id"])
        line = Change.line(project)
        about = Change.about(line)
        answer(at: project.head_change_id, changes: line.map { |change| {id: change.id, words: change.words, at: change.updated_at.iso8601, who: about[change.id].first, shot: about[change.id].last} })
      end

      app.post "/api/projects/:id/history" do
        project = Project.fetch(params["id"])
        body = body_json
        restored(project, nil, Change.travel(project, whole_or_none(body, "change")))
      end

      app.helpers do
        # Raster and rate; without them those of the footage, once there is a cut.
        def made_for(body)
          return {width: 1920, height: 1080, fixed: false} unless %w[width height rate].any? { |name| body[name] }

          edges = %w[width height].to_h { |name| [name.to_sym, whole(body, name)] }
          wrong = edges.find { |_, pixels| !pixels.between?(16, Mordant::Deliver::Sheet::LARGEST) }
          raise Mordant::ParameterError.new(path: wrong.first.to_s, expected: "16 to #{Mordant::Deliver::Sheet::LARGEST} pixels", found: wrong.last) if wrong

          rate = Rate.parse(body["rate"])
          {**edges, rate_numerator: rate.numerator, rate_denominator: rate.denominator}
        end

        def step(direction)
          project = Project.fetch(params["id"])
          change, rows = Present.person ? OwnHistory.new(project, Present.person).public_send(direction) : Change.public_send(direction, project)
          restored(project, change, rows || [])
        end

        # Recipes that have changed, and whether something else has, so that a screen reads it anew.
        def restored(project, change, rows)
          recipes, others = rows.partition { |row| row.is_a?(Recipe) }
          answer(project: project.reload.to_h, words: change&.words, recipes: recipes.map(&:to_h), beyond: others.any?)
        end
      end
    end
  end
end
