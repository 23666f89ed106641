# frozen_string_literal: true

module Mordant
  module Colour
    # From one encoding to another, scene to display with a rendering or
    # colorimetrically without one. Where either end is a signal, curves alone.
    class Conversion
      attr_reader :from, :to, :rendering, :from_range, :to_range

      # @param from [String] encoding id
      # @param to [String] encoding id
      # @param rendering [String, nil] rendering id, from scene to display only
      # @param from_range [String] see SignalRange
      # @param to_range [String]
      # @raise [UnknownIdError]
      # @raise [ParameterError] of a rendering where the ends are not scene and display, or of a range
      def initialize(from:, to:, rendering: nil, from_range: SignalRange::FULL, to_range: SignalRange::FULL)
        @from, @to = Encoding.fetch(from), Encoding.fetch(to)
        @from_range, @to_range = SignalRange.check(from_range, "from_range"), SignalRange.check(to_range, "to_range")
        @rendering = Conversion.rendering(rendering)
        return unless @rendering && !(@from.scene? && !@to.scene?)

        raise ParameterError.new(path: "rendering", expected: "none, as a rendering leads from a scene encoding " \
                                                              "to a display encoding", found: rendering)
      end

      # Every rendering here is evaluated by its defining equations, which
      # reference numbers call "closed-form".
      CLOSED_FORM = /_?closed-form\z/

      # @return [Rendering, nil]
      def self.rendering(id)
        name = id.to_s.sub(CLOSED_FORM, "")
        Rendering.fetch(name) unless name.empty?
      end

      KEPT = 256

      # The operations of a conversion, made once while its encodings stay what they are.
      #
      # @return [Array] Pointwise operations
      def self.between(from, to, rendering = nil)
        return [].freeze if from == to

        @kept ||= {}
        key = [Encoding.fetch(from), Encoding.fetch(to), rendering]
        @kept.shift if @kept.size > KEPT
        @kept[key] ||= new(from:, to:, rendering:).operations.freeze
      end

      # @return [Array] Pointwise operations
      def operations
        return [] if from == to && from_range == to_range

        [*SignalRange.decoding(from_range), *full_range, *SignalRange.encoding(to_range)]
      end

      # @return [Pointwise::Chain]
      def chain = Pointwise::Chain.new(operations)

      private

      def full_range
        return [] if from == to
        return curves if [from, to].any? { |one| one.kind == Encoding::SIGNAL }

        [*from.decoding, *between, *to.encoding]
      end

      def curves
        [[from, :decode, Pointwise::Curve::LOG], [to, :encode, Pointwise::Curve::FLOAT]].flat_map do |one, direction, domain|
          one.linear? ? [] : [Pointwise::Curve.new(one.signal_curve.method(direction), domain:)]
        end
      end

      def between
        return rendering.operations if rendering
        return [] if from.kind == to.kind

        [Pointwise::Matrix.new(from.scene? ? Encoding::SCENE_TO_DISPLAY : Encoding::DISPLAY_TO_SCENE)]
      end
    end
  end
end
