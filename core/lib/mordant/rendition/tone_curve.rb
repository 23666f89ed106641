# frozen_string_literal: true

module Mordant
  module Rendition
    # PQ codes of a mastering display brought to those of a target: straight up to a knee, then over to the target's peak, and blacks lifted to
    # its least light. Immutable.
    #
    #   E1 = (E - B) / (W - B)                                                  B, W: codes of the mastering display's black and white
    #   E2 = E1 below KS, else P(E1);   KS = 1.5 peak - 0.5                     peak, least: of the target, as shares of B to W
    #   P(x) = (2t^3 - 3t^2 + 1) KS + (t^3 - 2t^2 + t) (1 - KS) + (3t^2 - 2t^3) peak,   t = (x - KS) / (1 - KS)
    #   E3 = E2 + least (1 - E2)^4
    #   E' = E3 (W - B) + B
    #
    # A target that has more than the master changes nothing at that end.
    #
    # Source: ITU-R BT.2390-10, 5.4.1, hue-preserving EETF.
    class ToneCurve
      KEYS = %w[black white least greatest].freeze
      LIGHT = (0.0..10_000.0) # cd/m2

      # @param document [Hash] KEYS, in cd/m2
      # @return [ToneCurve]
      # @raise [ParameterError]
      def self.read(document)
        new(**KEYS.to_h do |key|
          value = document[key]
          raise ParameterError.new(path: key, expected: "cd/m2 from 0 to 10000", found: value) unless value.is_a?(Numeric) && value.real? && LIGHT.cover?(value)

          [key.to_sym, value.to_f]
        end)
      end

      # @param black [Float] of the mastering display, in cd/m2
      # @param white [Float]
      # @param least [Float] light of the target
      # @param greatest [Float]
      # @raise [ParameterError] where either has no room between its ends
      def initialize(black:, white:, least:, greatest:)
        {"white" => [black, white], "greatest" => [least, greatest]}.each do |path, (low, high)|
          raise ParameterError.new(path:, expected: "more than #{low} cd/m2", found: high) unless high > low
        end
        @from, to = [black, white, least, greatest].map { |light| Colour::Transfer::PQ.encode(Numo::DFloat[light * ICtCp::NITS])[0] }.then { |codes| codes.each_slice(2).to_a }
        least_share, peak_share = to.map { |code| (code - @from[0]) / (@from[1] - @from[0]) }
        @least, @peak = [least_share, 0.0].max, [peak_share, 1.0].min
        freeze
      end

      # @return [Boolean] it changes nothing
      def neutral? = @least.zero? && @peak == 1.0

      # @param codes [Numo::NArray] PQ; beyond the mastering display's they are held to it
      # @return [Numo::NArray] the same shape; itself where nothing is to be changed
      def call(codes)
        return codes if neutral?

        low, high = @from
        shares = ((codes - low) / (high - low)).clip(0.0, 1.0)
        bent = (@peak < 1.0) ? ToneCurve.rolled(shares, @peak) : shares
        (bent + (1.0 - bent)**4 * @least) * (high - low) + low
      end

      # P(x) alone: straight up to the knee, over to the peak at 1.
      #
      # @param shares [Numo::NArray] 0.0..1.0
      # @param peak [Float] above 1/3, below 1
      # @return [Numo::NArray]
      def self.rolled(shares, peak)
        knee = 1.5 * peak - 0.5
        t = ((shares - knee) / (1.0 - knee)).clip(0.0, 1.0)
        square, cube = t**2, t**3
        over = (cube * 2.0 - square * 3.0 + 1.0) * knee + (cube - square * 2.0 + t) * (1.0 - knee) + (square * 3.0 - cube * 2.0) * peak
        Colour::Piecewise.select(shares < knee, shares, over)
      end
    end
  end
end
