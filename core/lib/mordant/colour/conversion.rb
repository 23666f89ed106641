# frozen_string_literal: true

module Mordant
  module Colour
    # From one encoding to another, scene to display with a rendering or
    # colorimetrically without one.
    class Conversion
      attr_reader :from, :to, :rendering

      # @param from [String] encoding id
      # @param to [String] encoding id
      # @param rendering [String, nil] rendering id, from scene to display only
      # @raise [UnknownIdError]
      # @raise [ParameterError] of a rendering where the ends are not scene and display
      def initialize(from:, to:, rendering: nil)
        @from, @to = Encoding.fetch(from), Encoding.fetch(to)
        @rendering = rendering && Rendering.fetch(rendering)
        return unless @rendering && !(@from.scene? && !@to.scene?)

        raise ParameterError.new(path: "rendering", expected: "none, as a rendering leads from a scene encoding " \
                                                              "to a display encoding", found: rendering)
      end

      # @return [Array] Pointwise operations
      def operations
        return [] if from == to

        [*from.decoding, *between, *to.encoding]
      end

      # @return [Pointwise::Chain]
      def chain = Pointwise::Chain.new(operations)

      private

      def between
        return rendering.operations if rendering
        return [] if from.kind == to.kind

        [Pointwise::Matrix.new(from.scene? ? Encoding::SCENE_TO_DISPLAY : Encoding::DISPLAY_TO_SCENE)]
      end
    end
  end
end
