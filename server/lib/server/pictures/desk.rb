# frozen_string_literal: true

module Server
  module Pictures
    # Makes the pictures and instruments of a cut for a screen.
    class Desk
      # The settled picture; footage beyond it is shown at this size.
      WIDTH = 960
      HEIGHT = 540
      # While a hand is moving, blocks of this edge are one pixel.
      DRAG_REDUCTION = 3
      PLAY_REDUCTION = 2
      PLAY_AHEAD = 16 # frames decoded in one go
      SMALL_REDUCTION = 4
      # Nodes of the look-up table a screen draws the source through while a hand moves.
      LIVE_NODES = 33
      REDUCTIONS = {"full" => 1, "play" => PLAY_REDUCTION, "drag" => DRAG_REDUCTION, "small" => SMALL_REDUCTION}.freeze
      PLANS = 64
      CURVE_POINTS = 49
      SHAPE_POINTS = 97

      def self.current = (@current ||= new)

      attr_reader :gate

      def initialize(store: FrameStore.new)
        @store = store
        @gate = Gate.new
        @plans = {}
      end

      # @param cut [Cut]
      # @param frame [Integer] record frame
      # @param size [String] one of REDUCTIONS
      # @param trial [Hash{Integer => Mordant::Grade::Recipe}] by recipe id, instead of what is stored
      # @param source [Boolean] without any recipe
      # @param screen [Mordant::Grade::Screen] what it is drawn on
      # @return [Array<Mordant::Frame>] in the working space, as the view's file has it, and as it is drawn
      # @raise [Mordant::ParameterError, Mordant::MediaError]
      def picture(cut, frame:, screen:, size: "full", trial: {}, source: false)
        layers = cut.timeline.layers(frame).map { |layer| [graded(cut, layer, size, trial, source), layer.share] }
        working = layers.first.first
        working = Mordant::Deliver::Programme.mix(working, *layers.last) if layers.size > 1
        measured = screen.measured(working)
        [working, measured, screen.drawn(working, measured)]
      end

      # What a screen needs to draw a frame by itself while a hand moves: the
      # source as decoded. In a dissolve, and for linear sources, there is no such
      # thing, and reduced pictures are made.
      #
      # @param frame [Integer] record frame
      # @return [Mordant::Media::Codes, nil]
      def source(cut, frame:)
        shot, layer = alone(cut, frame)
        fetch(cut, shot, layer) if shot
      end

      # A part of a frame as decoded; in a dissolve of the incoming shot.
      #
      # @param region [Array<Float>] see Mordant::Media::Codes#crop
      # @return [Mordant::Media::Codes]
      def patch(cut, frame:, region:)
        layer = cut.timeline.layers(frame).last
        fetch(cut, shot_of(cut, layer), layer).crop(region)
      end

      # The grade of a frame as 16-bit codes on the nodes of a lattice over the codes
      # that occur in it, red fastest.
      #
      # @return [Array(Numo::UInt16, Array<Array<Float>>), nil] [LIVE_NODES^3, 3], and the domain;
      #   nil where the recipe has parts that no lattice holds
      def lattice(cut, frame:, screen:, trial: {})
        shot, layer = alone(cut, frame)
        return unless shot

        plan = plan(cut.project, shot.grade(trial), shot.clip)
        return unless plan.pointwise?

        nodes(plan, screen, fetch(cut, shot, layer).domain)
      end

      # The grade of a whole shot for playing it: over all codes its encoding has.
      #
      # @param shot [Shot]
      # @param recipe [Mordant::Grade::Recipe] as it is under the hand
      # @return [Array(Numo::UInt16, Array<Array<Float>>), nil]
      def shot_lattice(cut, shot, recipe, screen:)
        return if Mordant::Colour.encoding(shot.clip.source_encoding).linear?

        plan = plan(cut.project, recipe, shot.clip)
        nodes(plan, screen, Mordant::Lut::Lattice::WHOLE) if plan.pointwise?
      end

      # Frames of one shot as decoded, for playing.
      #
      # @param shot [Shot]
      # @param source_frame [Integer]
      # @return [Mordant::Media::Codes]
      def playing(cut, shot, source_frame)
        width, height = raster(cut.project).map { |edge| edge / PLAY_REDUCTION }
        @store.fetch(shot.clip, source_frame, width:, height:, ahead: PLAY_AHEAD)
      end

      # @param recipe [Mordant::Grade::Recipe]
      # @return [Hash{String => Array<Float>}] tone curves by the id of the step
      def curves(project, recipe)
        space = project.space
        recipe.entries.to_h { |entry| [entry.id, entry.step.tone_samples(space, count: CURVE_POINTS)&.map { |t| t.round(4) }] }.compact
      end

      # @param recipe [Mordant::Grade::Recipe]
      # @return [Hash{String => Hash}] shapes of curves by the id of the step
      def shapes(recipe)
        recipe.entries.to_h { |entry| [entry.id, entry.step.shapes(count: SHAPE_POINTS).transform_values { |row| row.map { |y| y.round(4) } }] }.reject { |_, shapes| shapes.empty? }
      end

      private

      # @return [Array(Shot, Mordant::Cut::Timeline::Layer), nil]
      def alone(cut, frame)
        layer, other = cut.timeline.layers(frame)
        shot = shot_of(cut, layer)
        [shot, layer] unless other || Mordant::Colour.encoding(shot.clip.source_encoding).linear?
      end

      def shot_of(cut, layer) = cut.loaded_shots.find { |one| one.id == layer.shot.key }

      def fetch(cut, shot, layer, size = "full")
        width, height = raster(cut.project)
        @store.fetch(shot.clip, layer.source_frame, width:, height:, reduction: REDUCTIONS.fetch(size))
      end

      def graded(cut, layer, size, trial, source)
        shot = shot_of(cut, layer)
        codes = fetch(cut, shot, layer, size)
        recipe = source ? NOTHING : shot.grade(trial)
        plan(cut.project, recipe, shot.clip).run(codes)
      end

      NOTHING = Mordant::Grade::Recipe.new(Mordant::Grade::Recipe::EMPTY_DOCUMENT)

      def nodes(plan, screen, domain)
        samples = Mordant::Grade::Bake.new(plan:, output: screen, size: LIVE_NODES, domain:).samples
        nodes = Mordant::Frame.new(samples, width: LIVE_NODES**3, height: 1, encoding: screen.encoding)
        [Mordant::Media::Integers.interleave(nodes, 16), domain]
      end

      # Kept for as long as nothing it depends on changes, files in libraries included.
      def plan(project, recipe, clip)
        encoding = Mordant::Colour.encoding(clip.source_encoding)
        key = [recipe.to_h, recipe.stamps, encoding, project.working_space, project.compress_gamut]
        kept = @plans.delete(key) || project.plan(recipe, clip)
        @plans[key] = kept
        @plans.shift while @plans.size > PLANS
        kept
      end

      # The project's raster within WIDTH x HEIGHT.
      def raster(project)
        scale = [1.0, WIDTH.to_f / project.width, HEIGHT.to_f / project.height].min
        [(project.width * scale).round, (project.height * scale).round]
      end
    end
  end
end
