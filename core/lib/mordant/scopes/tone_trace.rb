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
      # Differences of log codes are below this, and added to it become multiples of 2^-20, whose sums are exact in any order. Others count as none.
      FAR = 8.0

      # @param frame [Frame] log codes of the working space
      # @return [ToneTrace]
      def self.of(frame, space: Colour::WorkingSpace.default)
        new(*counted(space).call(*Pointwise.rows(frame.rgb)), span: space.white - space.black)
      end

      class << self
        private

        # From planes to the bin of each pixel, and to its differences.
        def counted(space)
          (@counted ||= {})[[space.black, space.white]] ||= Pointwise::Counted.new(3, BINS) do |red, green, blue|
            tone = ((red + green + blue) * (1.0 / 3) - space.black) * (BINS / (space.white - space.black))
            [[Pointwise.held(tone, 0.0).clip(0.0, BINS - 1), *[red - blue, green - (red + blue) * 0.5].map { |plane| steady(plane) }]]
          end
        end

        def steady(difference)
          known = Pointwise.held(difference, FAR)
          Pointwise.choose(known.dup.abs < FAR, (known + FAR) - FAR, known.clip(0.0, 0.0))
        end
      end

      # @param counts [Numo::UInt32] [BINS]
      # @param warmth [Numo::DFloat] [BINS], sums
      # @param tint [Numo::DFloat] [BINS], sums
      # @param span [Float] of the axis, in log codes
      def initialize(counts, warmth, tint, span:)
        @counts, @warmth, @tint, @span = counts, warmth, tint, span
      end

      # @return [Hash] counts [BINS] as shares of the fullest bin; warmth and tint
      #   [BINS], nil where a tone hardly occurs
      def to_h
        fullest = [@counts.max, 1].max.to_f
        {light: @counts.to_a.map { |count| (count / fullest).round(4) }, warmth: mean(@warmth), tint: mean(@tint)}
      end

      private

      def mean(sums)
        rare = @counts.sum * RAREST
        sums.to_a.zip(@counts.to_a).map { |sum, count| (sum / count / @span).round(5) if count >= rare }
      end
    end
  end
end
