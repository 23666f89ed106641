# frozen_string_literal: true

module Server
  # A shot's grade as a look-up table to take elsewhere: of all its steps or chosen ones,
  # with the view or without it.
  module BakeRoutes
    FORMATS = %w[cube clf].freeze

    def self.registered(app)
      # How far the table is from exact, in codes of what it returns: on the colours of the
      # shot, and on all there are; and what it cannot hold.
      app.get "/api/shots/:id/bake" do
        shot = shot_to_bake
        recipe, taken = chosen(shot)
        bake = bake(shot, recipe)
        seen, all = Pictures::Desk.current.gate.pass(nil, 0) { [bake.error(colours(shot)), bake.error] }
        answer(size: bake.size, seen: seen.to_h, all: all.to_h, left_out: recipe.beyond_luts.map(&:name), from: shot.clip.encoding, to: returned(shot).to_s, taken:)
      end

      app.get "/api/shots/:id/look.:format" do
        shot = shot_to_bake
        format = params["format"]
        raise Mordant::ParameterError.new(path: "format", expected: FORMATS.join(" or "), found: format) unless FORMATS.include?(format)

        recipe, taken = chosen(shot)
        bake = bake(shot, recipe)
        text = Pictures::Desk.current.gate.pass(nil, 0) { table_text(shot, bake, format, taken) }
        content_type "text/plain"
        attachment "#{[shot.cut.project.name, shot.name, shot.clip.encoding, bake.size].join("_").gsub(/[^\w.-]+/, "_")}.#{format}"
        text
      end

      # Tables of all sizes, with what they leave out, as one file.
      app.get "/api/shots/:id/on_set.tar" do
        shot = shot_to_bake
        recipe, taken = chosen(shot)
        set = OnSet.new(shot, recipe, taken:, view: returned(shot), colours: colours(shot))
        bytes = Pictures::Desk.current.gate.pass(nil, 0) { Tar.write("".b) { |tar| set.each_file { |path, text| tar.add(path, text.b) } } }
        content_type "application/x-tar"
        attachment "#{set.name}.tar"
        bytes
      end

      app.helpers do
        # @raise [Mordant::ParameterError] of a clip nobody has assigned
        def shot_to_bake
          shot = Shot.includes(:recipes, :clip, cut: :project).fetch(params["id"])
          return shot if shot.clip.assigned?

          raise Mordant::ParameterError.new(path: "encoding", expected: "a clip whose encoding is assigned", found: shot.clip.path)
        end

        # @return [Array(Mordant::Grade::Recipe, String)] of the steps asked for, all without asking; see Shot#standing
        def chosen(shot)
          recipe = shot.grade
          recipe = recipe.only(params["steps"].split(",")) if params["steps"]
          shot.standing(recipe, params["frame"] && number("frame"))
        end

        # @return [Mordant::Grade::View] what the table returns: the target asked for, or log
        #   codes of the working space
        def returned(shot)
          project = shot.cut.project
          return Mordant::Grade::View.new(encoding: project.space.log) if params["view"] == "off"

          shot.cut.renditions.alone(project.view_of(params["target"]), shot, params["frame"] && number("frame") - shot.record_in)
        end

        def table_text(shot, bake, format, taken)
          title = "#{shot.cut.project.name} #{shot.name}: #{shot.clip.encoding} to #{returned(shot)}#{", #{taken}" if taken}"
          return Mordant::Lut::Cube.write(bake.table(title:)) if format == "cube"

          Mordant::Lut::Clf.write(bake.process_list(id: "#{shot.cut.project.id}-#{shot.id}-#{shot.revision}", title:,
            input: Mordant::Colour.encoding(shot.clip.encoding).label, result: returned(shot).to_s))
        end

        # @return [Numo::DFloat] [3, n] codes of its middle frame; of linear light none
        def colours(shot)
          return if Mordant::Colour.encoding(shot.clip.encoding).linear?

          feed = Pictures::Desk.current.alone(Pictures::Wish.new(cut: shot.cut, frame: shot.record_in + [shot.dissolve, shot.length / 2].max))
          feed && Numo::DFloat.cast(feed.codes(4).rgb) / 65_535
        end

        def bake(shot, recipe)
          project = shot.cut.project
          size = Integer(params.fetch("size", "33"), 10, exception: false)
          Mordant::Grade::Bake.new(plan: project.plan(recipe.within_luts, shot.clip.source_encoding), output: project.output(returned(shot)), size:)
        end
      end
    end
  end
end
