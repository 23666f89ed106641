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
      SMALL_REDUCTION = 4
      REDUCTIONS = {"full" => 1, "play" => PLAY_REDUCTION, "drag" => DRAG_REDUCTION, "small" => SMALL_REDUCTION}.freeze
      PLANS = 64
      CURVE_POINTS = 49

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
      # @param trial [Hash{Integer => Mordant::Grade::Recipe}] by shot id, instead of what is stored
      # @param source [Boolean] without any recipe
      # @return [Array<Mordant::Frame>] in the working space, and in the project's view
      # @raise [Mordant::ParameterError, Mordant::MediaError]
      def picture(cut, frame:, size: "full", trial: {}, source: false)
        layers = cut.timeline.layers(frame).map { |layer| [graded(cut, layer, size, trial, source), layer.share] }
        working = layers.first.first
        working = Mordant::Deliver::Programme.mix(working, *layers.last) if layers.size > 1
        [working, Mordant::Grade::Output.for(cut.project.view).run(working)]
      end

      # @param recipe [Mordant::Grade::Recipe]
      # @return [Hash{String => Array<Float>}] tone curves by the id of the step
      def curves(recipe)
        space = Mordant::Colour::WorkingSpace.default
        recipe.entries.to_h { |entry| [entry.id, entry.step.tone_samples(space, count: CURVE_POINTS)&.map { |t| t.round(4) }] }.compact
      end

      private

      def graded(cut, layer, size, trial, source)
        shot = cut.loaded_shots.find { |one| one.id == layer.shot.key }
        width, height = raster(cut.project)
        codes = @store.fetch(shot.clip, layer.source_frame, width:, height:).reduce(REDUCTIONS.fetch(size))
        recipe = source ? NOTHING : trial.fetch(shot.id) { shot.recipe.grade }
        plan(recipe, shot.clip.source_encoding).run(codes)
      end

      NOTHING = Mordant::Grade::Recipe.new(Mordant::Grade::Recipe::EMPTY_DOCUMENT)

      def plan(recipe, encoding)
        key = [recipe.to_h, encoding]
        kept = @plans.delete(key) || Mordant::Grade::Plan.new(recipe:, source: encoding)
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
