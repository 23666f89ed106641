# frozen_string_literal: true

module Server
  module Pictures
    # A whole picture as a screen shows it, with its instruments: made by all processes that are free, where it is a full one.
    class Settled
      # @param wish [Wish]
      # @param body [Hash] of the request that it was read from
      # @param size [String] one of Desk::REDUCTIONS
      # @param hands [Hands, nil] of this process
      def initialize(wish, body, size, hands: Hands.current)
        @wish, @body, @size = wish, body, size
        @hands = hands if size == "full"
        @measuring = Measuring.new(wish, body, extent: size)
      end

      # @return [Array(Hash, Hash{Symbol => String})] header and parts of an answer, the picture as PNG
      # @raise [Mordant::ParameterError, Mordant::MediaError]
      def answer
        header, parts = (@measuring.adds_up? && together) || alone
        [header.merge(@measuring.matte, size: @size, finer: @size == "full" && Desk.current.finer(@wish) > 1), parts]
      end

      private

      def together
        bands = @hands&.bands(@wish, @body, Bands::Readout) or return
        counted, picture = Bands::Readout.join(bands)
        header, parts = @measuring.told(counted, *Desk.raster(@wish.project))
        [header, {picture:, **parts}]
      end

      def alone
        Desk.current.prepare(@wish)
        working, measured, drawn = frames
        header, parts = @measuring.read(working, measured)
        [header, {picture: Mordant::Media::Png.encode(@measuring.shown(working, measured, drawn)), **parts}]
      end

      def frames
        bands = @hands&.bands(@wish, @body, Bands::Frames) unless @measuring.adds_up?
        bands ? Bands::Frames.join(bands) : Desk.current.picture(@wish, size: @size)
      end
    end
  end
end
