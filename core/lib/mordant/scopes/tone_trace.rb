# frozen_string_literal: true

module Mordant
  module Scopes
    # What stands behind the staves: over the tone axis of the working space, how
    # many pixels there are, and their mean red-blue and green-magenta difference.
    #
    # Tones are bins of the axis by the mean of the three log codes; differences
    # are in shares of the axis. Pixels beyond the ends count in the end bins.
    class ToneTrace
      BINS = 96
      # Bins with fewer pixels than this share of the picture have no mean.
      RAREST = 0.0002

      # @param frame [Frame] log codes of the working space
      def initialize(frame, space: Colour::WorkingSpace.default)
        @size = frame.size
        @span = space.white - space.black
        red, green, blue = Array.new(3) { |channel| frame.rgb[channel, true].dup }
        @bins = bins(red + green + blue, space)
        @counts = @bins.bincount(minlength: BINS)
        @warmth = mean(red - blue)
        @tint = mean(green - (red + blue) * 0.5)
      end

      # @return [Hash] counts [BINS] as shares of the fullest bin; warmth and tint
      #   [BINS], nil where a tone hardly occurs
      def to_h
        fullest = [@counts.max, 1].max.to_f
        {light: @counts.to_a.map { |count| (count / fullest).round(4) }, warmth: @warmth, tint: @tint}
      end

      private

      def bins(sum, space)
        tone = ((sum.inplace * (1.0 / 3)) - space.black).out_of_place!
        Numo::Int32.cast((tone * (BINS / @span)).clip(0, BINS - 1)).clip(0, BINS - 1)
      end

      def mean(difference)
        usable = Colour::Piecewise.select(difference.isfinite, difference, difference.new_zeros)
        sums = @bins.bincount(Numo::DFloat.cast(usable), minlength: BINS)
        sums.to_a.zip(@counts.to_a).map do |sum, count|
          (sum / count / @span).round(5) if count >= @size * RAREST
        end
      end
    end
  end
end
