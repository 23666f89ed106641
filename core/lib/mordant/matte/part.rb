# frozen_string_literal: true

module Mordant
  module Matte
    # A contributor in its place in a matte. Immutable.
    class Part
      include Altered

      KEYS = %w[id kind name mode softness invert strength parameters keys path].freeze
      MODES = %w[add subtract intersect out].freeze
      SOFTEST = 0.2 # standard deviation as a share of the picture's height

      # @return [String] id, unique in its matte
      attr_reader :id
      # @return [String, nil] a name of its own
      attr_reader :name
      # @return [String] one of MODES
      attr_reader :mode
      # @return [Contributor]
      attr_reader :contributor
      # @return [Float] standard deviation of what softens it, as a share of the picture's height
      attr_reader :softness
      # @return [Float] 0.0..1.0: how much of it counts
      attr_reader :strength
      # @return [Grade::Keys]
      attr_reader :keys
      # @return [Integer, nil] id of the path that carries it
      attr_reader :path_id

      # @param document [Hash] as parsed from JSON; id and kind are needed
      # @param path [String] for errors
      # @raise [ParameterError]
      def initialize(document, path: "contributor")
        Checks.held(path, document, KEYS)
        @id = Checks.text(document["id"], "#{path}.id")
        @name = document["name"] && Checks.text(document["name"], "#{path}.name")
        @mode = document["mode"] || "add"
        Checks.reject("#{path}.mode", MODES.join(", "), mode) unless MODES.include?(mode)
        @softness = Checks.number(document.fetch("softness", 0.0), "#{path}.softness", 0.0..SOFTEST)
        @invert = Checks.switch(document.fetch("invert", false), "#{path}.invert")
        @strength = Checks.number(document.fetch("strength", 1.0), "#{path}.strength", 0.0..1.0)
        kind = Checks.kind(Matte.kinds, document["kind"], path)
        @contributor, @keys = Grade::Keys.read(document.fetch("parameters", {}), document.fetch("keys", {}), kind:, path:)
        follow(document["path"], "#{path}.path") if document["path"]
        freeze
      end

      def invert? = @invert

      def acts? = mode != "out"

      # Whether it changes from frame to frame.
      def moving? = !@shift.nil? || (acts? && (!@keys.empty? || !@path_id.nil? || contributor.moving?))

      # @return [Array<Range<Integer>>] of its owner's frames, in which it moves; see Grade::Course#moves
      def moves
        return [] unless moving?
        return [Grade::Course::EVER] if contributor.moving? || @shift

        [*@keys.moves, (@path&.span || Grade::Course::EVER if @path_id)].compact
      end

      # @param frame [Integer] from the owner's first one
      # @param shot_frame [Integer] from the shot's first one
      # @return [Part] as it is there, which does not move
      # @raise [ParameterError] of a path that is not there
      def at(frame, shot_frame)
        return self unless moving?

        made = @keys.at(contributor, frame).at(shot_frame)
        carrying = [@shift, (path.at(frame) * path.at(@path_from).inverse if @path_id)].compact.reduce(:*)
        made = made.carried(carrying) if carrying
        copy { @contributor, @keys, @path, @path_id, @shift = made, Grade::Keys::NONE, nil, nil, nil }
      end

      # @param map [Track::Map] by which it lies elsewhere, wherever else it is carried
      # @return [Part]
      def shifted(map) = copy { @shift = map }

      # @return [Part] as if it were added
      def added = copy { @mode = "add" }

      # @param resolver [#linked, #clip, #path] see Recipe#resolved
      def resolved(resolver)
        made, found = contributor.resolved(resolver), @path_id && resolver.path(@path_id)
        (made.equal?(contributor) && found.nil?) ? self : copy { @contributor, @path = made, found || @path }
      end

      # @param raster [#height]
      # @return [Integer] pixels around one that it depends on
      def margin(raster) = contributor.margin(raster) + (softness.zero? ? 0 : gaussian(raster).margin)

      # @param sight [Sight]
      # @return [Numo::SFloat] [n] of its window, right but for its margin at edges that are not the picture's
      # @raise [ParameterError, MediaError]
      def weights(sight)
        made = contributor.class.sees_picture? ? softened(sight) : shape(sight)
        invert? ? (made.inplace * -1.0 + 1.0).out_of_place! : made
      end

      # @return [Array] for JSON, what it depends on besides its document
      def stamps = [*contributor.stamps, *@path&.stamp]

      def to_h
        {"id" => id, "kind" => contributor.class.id, **(name ? {"name" => name} : {}), "mode" => mode, "softness" => softness, "invert" => invert?, "strength" => strength,
         "parameters" => contributor.values.transform_keys(&:to_s), **(@keys.empty? ? {} : {"keys" => @keys.to_h}), **(@path_id ? {"path" => {"id" => @path_id, "from" => @path_from}} : {}), **carried}
      end

      SHAPES = Pointwise::Lately.new(8)
      private_constant :SHAPES

      private

      # @return [Numo::SFloat] a new one
      def shape(sight)
        made = SHAPES.fetch([contributor.class, contributor.values, contributor.carrying&.numbers, softness, sight.moment.width, sight.moment.height, sight.moment.window]) { softened(sight) }
        SHAPES.own?(made) ? made : made.dup
      end

      def softened(sight)
        made = contributor.weights(sight)
        softness.zero? ? made : gaussian(sight.moment).call(made, sight.moment.window).clip(0.0, 1.0)
      end

      # Where a path has taken it, in what is bound to a frame: its digest must differ from that of other frames.
      def carried = contributor.carrying ? {"carried" => contributor.carrying.numbers} : {}

      def path = @path || raise(ParameterError.new(path: "matte.contributors.path", expected: "a path that has been tracked", found: @path_id))

      def follow(document, path)
        Checks.held(path, document, %w[id from])
        fine = document["id"].is_a?(Integer) && document["from"].is_a?(Integer) && document["from"].abs <= Grade::Course::FURTHEST
        Checks.reject(path, "the id of a path, and the frame it is followed from", document) unless fine
        Checks.reject(path, "a contributor that is a shape, which a path can carry", contributor.class.id) unless contributor.class.family == :shape
        @path_id, @path_from = document.values_at("id", "from")
      end

      def gaussian(raster) = Area::Gaussian.new(softness * raster.height)
    end
  end
end
