# frozen_string_literal: true

module Server
  module Pictures
    # A whole picture as a screen shows it, with its instruments.
    class Settled
      # @param wish [Wish]
      # @param body [Hash] of the request that it was read from
      # @param size [String] one of Desk::REDUCTIONS
      def initialize(wish, body, size)
        @wish, @size = wish, size
        @measuring = Measuring.new(wish, body, extent: size)
      end

      # @return [Array(Hash, Hash{Symbol => String})] header and parts of an answer, the picture as PNG
      # @raise [Mordant::ParameterError, Mordant::MediaError]
      def answer
        Desk.current.prepare(@wish)
        working, measured, drawn = Desk.current.picture(@wish, size: @size)
        shown = @measuring.shown(working, measured, drawn)
        header, parts, picture = @measuring.read(working, measured) { Mordant::Media::Png.encode(shown) }
        shown.rgb.free unless @wish.still || shown.rgb.equal?(working.rgb) # nobody has it any more, and it is large
        [header.merge(@measuring.matte, size: @size, finer: @size == "full" && Desk.current.finer(@wish) > 1), {picture:, **parts}]
      end
    end
  end
end
