# frozen_string_literal: true

module Mordant
  module Steps
    # One operation of a recipe with its parameter values. Immutable.
    class Step < Declared
      DOMAINS = %i[log linear].freeze
      REACHES = %i[pixel area time].freeze

      class << self
        # @param name [Symbol, nil] one of DOMAINS; without one, what was declared
        # @raise [ArgumentError]
        def domain(name = nil)
          return @domain unless name
          raise ArgumentError, "#{self}: a step works on #{DOMAINS.join(" or ")} values of the working space, not on #{name} ones; convert within operations" unless DOMAINS.include?(name)

          @domain = name
        end

        # What a step sees of a picture: the pixel's own value; pixels near it, or where it is; or
        # frames before and after.
        #
        # @param name [Symbol, nil] one of REACHES; without one, what was declared, :pixel else
        # @raise [ArgumentError]
        def reach(name = nil)
          return @reach || :pixel unless name
          raise ArgumentError, "#{self}: a reach is #{REACHES.join(", ")}, not #{name}" unless REACHES.include?(name)

          @reach = name
        end

        def pointwise? = reach == :pixel

        # Steps of one circuit are taken out of it together, to look at a picture without them.
        #
        # @param name [Symbol, nil] without one, what was declared
        # @return [Symbol, nil]
        def circuit(name = nil)
          name ? @circuit = name : @circuit
        end

        # What it is a step of: of grades of pictures, or of corrections of renditions.
        #
        # @param name [Symbol, nil] without one, what was declared, :pictures else
        # @return [Symbol]
        def serves(name = nil)
          name ? @serves = name : (@serves || :pictures)
        end

        # Declares that it is for taking something away, which is what is shown of it by itself.
        def takes_away = @takes_away = true

        def takes_away? = @takes_away == true

        # Parameters that a bundle's strength scales: amounts of which 0 is none. Without any, a bundle keeps so much of a
        # step's change.
        #
        # @param names [Array<Symbol>] of numbers and rows of numbers; without any, what was declared
        # @return [Array<Symbol>]
        def scales(*names)
          names.any? ? @scales = names.freeze : (@scales || [].freeze)
        end

        # @return [Boolean] it answers stamps of its own
        def reads_files? = instance_method(:stamps).owner != Step

        # Handles of hand-made controls; see Balance.
        def handles(list = nil)
          list ? @handles = list.freeze : (@handles || [].freeze)
        end

        # Parts of the picture the step treats by themselves, to be shown one at a time; a step
        # that names some has region_weights(name, planes, space).
        #
        # @return [Array<Symbol>]
        def regions(list = nil)
          list ? @regions = list.freeze : (@regions || [].freeze)
        end

        # @return [Hash] what an interface needs to know
        def to_h = {**super, domain: domain.to_s, reach: reach.to_s, pointwise: pointwise?, handles:, regions:, circuit:, takes_away: takes_away?}
      end

      def pointwise? = self.class.pointwise?

      # @param share [Float] 0.0..1.0
      # @return [Step] with so much of its amounts; see .scales
      def scaled(share)
        more = self.class.scales.to_h { |name| [name, values.fetch(name).then { |value| value.is_a?(Array) ? value.map { |one| one * share } : value * share }] }
        dup.tap { |one| one.instance_variable_set(:@values, values.merge(more).freeze) }
      end

      # @return [Array] what files it reads, and when they were last changed
      def stamps = []

      # @return [Boolean] it is another from frame to frame by itself
      def moving? = false

      # @param frame [Integer] from the first one of what owns it
      # @param seed [Array(Integer, Integer), nil] of the clip, and the clip's frame there
      # @return [Step] as it is there, which does not move
      def at(_frame, _seed = nil) = self

      # @return [Boolean] it may be left out while a hand moves on another step
      def fleeting? = false

      # Noise that a screen can lay over a picture by itself, while a hand moves or it plays: a step that is noisy has
      #
      #   unit(space, raster)    Pointwise operations from log codes to log codes: what one standard deviation of it does
      #   tile(raster, edge)     Numo::SFloat [3, edge^2] of variance 1, which meets itself at its edges
      #   tile_key(raster)       for JSON, what that depends on
      #   laid(edge)             where in the tile the picture's corner lies in its frame
      #
      # @return [Boolean]
      def noisy? = false

      # @return [Array<String>] paths of the library that it reads and that are not there
      def missing = []

      # @return [String, nil] id of the encoding that its values are in, where that is not the working space's
      def turns_into = nil

      # @param space [Colour::WorkingSpace]
      # @return [Array] Pointwise operations in the declared domain; none when neutral
      def operations(space) = raise(NotImplementedError, "#{self.class} has no operations")

      # Of a step whose change is not one between values of its domain: what is kept of it at a strength.
      #
      # @param space [Colour::WorkingSpace]
      # @param share [Float] between 0 and 1
      # @return [Array, nil] Pointwise operations in the declared domain; nil: in + share * (out - in)
      def partly(_space, _share) = nil

      # Of a step that reaches over an area or over time: what it does, in the declared domain.
      #
      # @param space [Colour::WorkingSpace]
      # @return [#call] of an area: a Numo::SFloat [3, n] of a Grade::Moment's window, and the moment, to
      #   a new one, right but for margin pixels at edges that are not the picture's; of time: the frame that is made, an Enumerable
      #   of those there are from window before to window after, each of which is gone once the next one comes, the moment of their window,
      #   and a block that has a moment's frame, to a new one
      def process(space) = raise(NotImplementedError, "#{self.class} has no process")

      # @param raster [#width, #height] of the whole picture
      # @return [Integer] pixels around one that it depends on
      def margin(_raster) = 0

      # Of a step that changes detail of a size.
      #
      # @return [Float, nil] that size as a share of the picture's height: a raster that does not hold it shows
      #   the step otherwise than the master does, seen from afar
      def detail = nil

      # @return [Integer] frames before and after that it depends on
      def window = 0

      # What the step makes of grey along the tone axis, for steps that have such
      # a curve.
      #
      # @param count [Integer]
      # @return [Array<Float>, nil] tone out for equal distances of tone in, 0.0..1.0
      def tone_samples(_space, count:) = nil

      # @param rgb [Numo::SFloat] [3, n] in the step's domain; never written to
      # @return [Numo::SFloat] [3, n], a new array
      # @raise [ShapeError] unless rgb is an SFloat of shape [3, n]
      def apply(rgb, space: Colour::WorkingSpace.default)
        Pointwise::Chain.new(operations(space)).call(rgb)
      end
    end
  end
end
