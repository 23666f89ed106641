# frozen_string_literal: true

require "forwardable"

module Server
  module Pictures
    # Makes the pictures and instruments of a cut for a screen.
    class Desk
      extend Forwardable

      # The settled picture; footage beyond it is shown at this size.
      WIDTH = 960
      HEIGHT = 540
      # While a hand is moving, blocks of this edge are one pixel.
      DRAG_REDUCTION = 3
      PLAY_REDUCTION = 2
      SMALL_REDUCTION = 4
      REDUCTIONS = {"full" => 1, "play" => PLAY_REDUCTION, "drag" => DRAG_REDUCTION, "small" => SMALL_REDUCTION}.freeze
      PLANS = 64
      SMALLS = 16 # pictures of a third of a megabyte
      CURVE_POINTS = 49
      SHAPE_POINTS = 97

      def self.current = (@current ||= new)

      attr_reader :gate

      # @!method alone(wish)
      # @!method incoming(wish)
      # @!method prepare(wish)
      # @!method playing(cut, shot, source_frame, reduction)
      # @!method store
      #   As of Supply.
      def_delegators :@supply, :alone, :incoming, :prepare, :playing, :store

      def initialize(store: FrameStore.new)
        @supply = Supply.new(store)
        @gate = Gate.new
        @plans = {}
        @smalls = {}
        @counted = Mordant::Pointwise::Lately.new(SMALLS)
      end

      # @param wish [Wish]
      # @param size [String] one of REDUCTIONS
      # @return [Array<Mordant::Frame>] in the working space, as the view's file has it, and as it is drawn
      # @raise [Mordant::ParameterError, Mordant::MediaError]
      def picture(wish, size: "full")
        return finished(wish, REDUCTIONS.fetch(size)) if wish.still

        working = mixed(wish) { |feed| made(wish, feed) { |recipe| graded(wish, feed, recipe, REDUCTIONS.fetch(size)) } }
        measured = wish.screen.measured(working)
        [working, measured, wish.screen.drawn(working, measured)]
      end

      # A part of a picture at its wish's raster, which may be that of the master.
      #
      # @param wish [Wish]
      # @param window [Mordant::Grade::Window]
      # @return [Array<Mordant::Frame>] as #picture
      # @raise [Mordant::ParameterError, Mordant::MediaError]
      def part(wish, window)
        return finished(wish, 1).map { |frame| part_of(frame, window) } if wish.still

        whole = Mordant::Grade::Window.whole(*(wish.raster || Desk.raster(wish.project)))
        around = window.grown(wish.screen.margin(whole), whole)
        working = mixed(wish, around) { |feed| made(wish, feed) { |recipe| feed.part(plan(wish.project, recipe, feed.encoding), around) } }
        measured = wish.screen.measured(working)
        made = [working, measured, wish.screen.drawn(working, measured)]
        (around == window) ? made : made.map { |frame| part_of(frame, window, around) }
      end

      # What a recipe makes of a whole frame. At the raster of the screen what is left of its noise is kept; see Cleaned.
      #
      # @param feed [Feed] of the wish's frame
      # @param recipe [Mordant::Grade::Recipe] as it is there
      # @param reduction [Integer]
      # @return [Mordant::Frame] in log codes of the working space
      def graded(wish, feed, recipe, reduction)
        kept = Mordant::Noise::Kept.of(recipe) if wish.raster.nil?
        start = kept && without_noise(wish, feed, kept, reduction)
        return feed.through(plan(wish.project, recipe, feed.encoding), reduction) unless start

        onward(wish.project, feed, kept, start, reduction)
      end

      # @param kept [Mordant::Noise::Kept]
      # @param start [Mordant::Frame] what is left of the frame, reduced
      # @return [Mordant::Frame] what all that follows makes of that
      def onward(project, feed, kept, start, reduction = 1) = following(project, kept.after).picture(Mordant::Grade::Moment.of(start).from(origin(project, feed, reduction)))

      # @return [Array<Array(Feed, Mordant::Noise::Kept)>] of a frame's layers that have noise taken away
      def kept_noise(wish) = @supply.feeds(wish).filter_map { |feed, _| Mordant::Noise::Kept.of(wish.recipe_of(feed.shot))&.then { |kept| [feed, kept] } }

      # Takes noise away from a frame, if it has a step that does, and keeps what that leaves.
      def clean(wish) = kept_noise(wish).each { |feed, kept| cleaned.fetch(wish.project, feed, kept) }

      # @return [Cleaned]
      def cleaned = @cleaned ||= Cleaned.new(self)

      # @return [Mordant::Grade::Origin] of a frame as it comes, which mattes may look at
      def origin(project, feed, reduction) = Mordant::Grade::Origin.new(plan(project, NOTHING, feed.encoding), feed.moment(reduction))

      # How many times finer than its raster a picture has to be made, and then reduced, to look as
      # the master does at that raster: where steps change detail that it does not hold.
      #
      # @param wish [Wish]
      # @return [Integer] at most what the master has
      def finer(wish)
        return 1 if wish.still

        width, height = wish.raster || Desk.raster(wish.project)
        rows = @supply.feeds(wish).map { |feed, _| plan(wish.project, wish.recipe_of(feed.shot), feed.encoding).least_rows }.max
        (rows / height.to_f).ceil.clamp(1, [wish.project.width / width, wish.project.height / height].min.clamp(1, nil))
      end

      # @param extent [String, Mordant::Grade::Window] a size of the whole picture, or a part of it
      # @return [Array<Mordant::Frame>] as #picture and #part
      def shown(wish, extent) = extent.is_a?(String) ? picture(wish, size: extent) : part(wish, extent)

      # One pixel of a frame: as decoded, in the working space, and in the view's codes.
      #
      # @param x [Float] share of the width
      # @param y [Float] share of the height
      # @return [Array<Array<Float>>] red, green and blue of each; nil for the first in a dissolve
      def point(wish, x, y)
        feed = alone(wish)&.then { |one| one unless one.linear? }
        plan = feed && plan(wish.project, wish.recipe_of(feed.shot), feed.encoding)
        return whole_point(wish, x, y) unless plan&.pointwise? && wish.screen.pointwise?

        codes = feed.codes.crop([x, y, 0.0, 0.0])
        working = plan.run(codes)
        [feed.values(codes), working.rgb.to_a.flatten, wish.screen.measured(working).rgb.to_a.flatten]
      end

      # A part of a frame as decoded; in a dissolve of the incoming shot.
      #
      # @param region [Array<Float>] see Mordant::Region
      # @return [Mordant::Media::Codes]
      def patch(wish, region:) = incoming(wish).codes.crop(region)

      # The project's raster within WIDTH x HEIGHT.
      #
      # @param project [Project]
      # @return [Array<Integer>]
      def self.raster(project)
        scale = [1.0, WIDTH.to_f / project.width, HEIGHT.to_f / project.height].min
        [(project.width * scale).round, (project.height * scale).round]
      end

      # What a step sees of a frame, in log codes of the working space, small.
      #
      # @param step [String] id of a step of the shot's recipe or of a wash over it
      # @return [Mordant::Frame, nil] nil when it is not there any more
      def step_input(wish, step) = before(wish, step) { |feed, recipe| small(wish.project, feed, recipe) }

      # How often it sees what; while a hand moves the step itself that stays.
      #
      # @return [Hash, nil] see Mordant::Scopes::StepInput
      def step_counts(wish, step)
        before(wish, step) do |feed, recipe|
          @counted.fetch([feed.stamp, Depends.grade(wish.project, recipe, feed.encoding)]) { Mordant::Scopes::StepInput.new(small(wish.project, feed, recipe), space: wish.project.space).to_h }
        end
      end

      # What a recipe makes of a frame, small; a hand that drags asks for the same again and again.
      #
      # @param recipe [Mordant::Grade::Recipe] as it is there
      # @return [Mordant::Frame] in the working space
      def small(project, feed, recipe)
        key = [feed.stamp, Depends.grade(project, recipe, feed.encoding)]
        kept = @smalls.delete(key) || feed.through(plan(project, recipe, feed.encoding), SMALL_REDUCTION)
        @smalls.shift while @smalls.size >= SMALLS
        @smalls[key] = kept
      end

      # Which pixels of a frame a step acts on; see Mordant::Grade::Acting.
      #
      # @param extent [String, Mordant::Grade::Window] as of #shown
      # @param which [Hash] region, or contributor and upto
      # @return [Numo::SFloat] [n], 0..1
      def acting(wish, step:, extent: "full", **which) = acts(wish, step, **which).weights(moment(wish, extent))

      # What a key of a step's matte looks at in a frame, small, and how much of that it takes.
      #
      # @return [Mordant::Scopes::KeyInput]
      def key_input(wish, step:, contributor:)
        seen, weights = acts(wish, step, contributor:).key(moment(wish, "small"), contributor)
        Mordant::Scopes::KeyInput.new(seen, weights, space: wish.project.space)
      end

      # @param acts [Hash] of a request, see Measuring
      # @return [Float] the matte under a point
      def matte_point(wish, x, y, acts)
        width, height = wish.raster || Desk.raster(wish.project)
        at = Mordant::Grade::Window.new(left: (x * width).floor.clamp(0, width - 1), top: (y * height).floor.clamp(0, height - 1), width: 1, height: 1)
        acting(wish, step: acts["step"], region: acts["region"], contributor: acts["contributor"], upto: acts["upto"] == true, extent: at)[0].round(4)
      end

      # @return [Mordant::Grade::Acting]
      def acts(wish, step, **which)
        feed = incoming(wish)
        Mordant::Grade::Acting.new(wish.recipe_of(feed.shot), id: step, **which) { |recipe| plan(wish.project, recipe, feed.encoding) }
      end

      # Kept for as long as nothing it depends on changes, files in libraries included.
      #
      # @param source [String] encoding id
      # @return [Mordant::Grade::Plan]
      def plan(project, recipe, source)
        remembered(Depends.grade(project, recipe, source)) { project.plan(recipe, source) }
      end

      # @param recipe [Mordant::Grade::Recipe] of what follows a picture in log codes of the working space
      # @return [Mordant::Grade::Plan]
      def following(project, recipe)
        remembered(Depends.digest("following", Depends.grade(project, recipe, project.space.log))) { Mordant::Grade::Plan.new(recipe:, source: project.space.log, space: project.space) }
      end

      # @param extent [String, Mordant::Grade::Window] as of #shown
      # @return [Mordant::Grade::Moment] of the shot at a frame, the incoming one of a dissolve
      def moment(wish, extent) = incoming(wish).then { |feed| extent.is_a?(String) ? feed.moment(REDUCTIONS.fetch(extent)) : feed.moment.at(extent) }

      private

      # What is left of a frame, reduced. While a hand moves it has to be there already, as the settled picture left it.
      #
      # @return [Mordant::Frame, nil]
      def without_noise(wish, feed, kept, reduction)
        there = cleaned.small(wish.project, settled(wish, feed), kept, reduction) if wish.passing
        there || (cleaned.fetch(wish.project, feed, kept).reduce(reduction) if reduction <= PLAY_REDUCTION)
      end

      # @return [Feed] the same as it is decoded where nothing moves
      def settled(wish, feed) = @supply.feeds(wish.with(passing: false)).map(&:first).find { |one| one.shot == feed.shot }

      # @yieldparam feed [Feed] of a frame
      # @yieldparam recipe [Mordant::Grade::Recipe] of the steps before one
      # @return [Object, nil] what the block returns; nil when the step is not there any more
      def before(wish, step)
        feed = incoming(wish)
        recipe = wish.recipe_of(feed.shot)
        yield feed, recipe.before(step) if recipe.entries.any? { |entry| entry.id == step }
      end

      # The latest plans.
      def remembered(key)
        kept = @plans.delete(key) || yield
        @plans[key] = kept
        @plans.shift while @plans.size > PLANS
        kept
      end

      # What a wish's recipe makes of a feed, or the light that one of its steps adds, or what it takes away.
      #
      # @yieldparam recipe [Mordant::Grade::Recipe]
      # @yieldreturn [Mordant::Frame]
      def made(wish, feed)
        recipe = wish.recipe_of(feed.shot)
        return yield recipe unless wish.adds && recipe.entries.any? { |entry| entry.id == wish.adds }

        after, before = [recipe.upto(wish.adds), recipe.before(wish.adds)].map { |one| yield one }
        taken = recipe.entries.find { |entry| entry.id == wish.adds }.step.class.takes_away?
        taken ? Mordant::Grade::Removed.of(after, before, wish.project.space, wish.gain || Mordant::Grade::Removed::USUAL) : Mordant::Grade::Added.of(after, before, wish.project.space)
      end

      # Of a finished picture; its light is taken for that of a scene where something asks for that.
      def finished(wish, reduction)
        frame = wish.still.frame(*(wish.raster || Desk.raster(wish.project)), reduction:)
        chain = Mordant::Grade::Screen.onward(frame.encoding, wish.project.space.log)
        [frame.with(chain.call(frame.rgb), encoding: wish.project.space.log), *wish.screen.finished(frame)]
      end

      def part_of(frame, window, whole = Mordant::Grade::Window.whole(frame.width, frame.height))
        rgb = window.cut(frame.rgb, whole)
        Mordant::Frame.new(rgb, width: window.width, height: window.height, encoding: frame.encoding)
      end

      # @param window [Mordant::Grade::Window, nil] of the wish's raster that is made
      # @yieldparam feed [Feed] of a layer
      # @yieldreturn [Mordant::Frame] in the working space
      # @return [Mordant::Frame] layers as the transition has them there
      def mixed(wish, window = nil)
        frames = @supply.feeds(wish).map { |feed, layer| [yield(feed), layer] }
        working, (incoming, layer) = frames.first.first, frames[1]
        return working unless incoming

        wish.project.transitions.call(working, incoming, layer, **(window ? {window:, raster: wish.raster || Desk.raster(wish.project)} : {}))
      end

      # Of pictures that are not made pixel by pixel.
      def whole_point(wish, x, y)
        working, measured, = picture(wish)
        at = [(x * working.width).floor.clamp(0, working.width - 1), (y * working.height).floor.clamp(0, working.height - 1)]
        [nil, working.at(*at).to_a, measured.at(*at).to_a]
      end
    end
  end
end
