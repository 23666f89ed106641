# frozen_string_literal: true

module Mordant
  module Colour
    # Academy density exchange: printing densities of a film negative to ACES
    # exposures and back.
    #
    # Source: SMPTE ST 2065-3:2012; Academy S-2008-002, universal unbuild.
    class Adx
      # Channel-dependent density to channel-independent density.
      TO_CID = [[0.75573, 0.22197, 0.02230], [0.05901, 0.96928, -0.02829], [0.16134, 0.07406, 0.76460]].freeze
      # Relative exposure to ACES2065-1.
      TO_ACES = [[0.72286, 0.12630, 0.15084], [0.11923, 0.76418, 0.11659], [0.01427, 0.08213, 0.90359]].freeze

      # Density to log10 exposure below CID 0.6; a straight line beyond.
      DENSITY = [-0.190000000000000, 0.010000000000000, 0.028000000000000, 0.054000000000000, 0.095000000000000,
        0.145000000000000, 0.220000000000000, 0.300000000000000, 0.400000000000000, 0.500000000000000, 0.600000000000000].freeze
      LOG_EXPOSURE = [-6.000000000000000, -2.721718645000000, -2.521718645000000, -2.321718645000000, -2.121718645000000,
        -1.921718645000000, -1.721718645000000, -1.521718645000000, -1.321718645000000, -1.121718645000000,
        -0.926545676714876].freeze
      SLOPE = 100.0 / 55
      REFERENCE = (7120.0 - 1520.0) / 8000.0 * SLOPE - Math.log10(0.18)

      # @param scale [Float] code value of 1.0
      # @param black [Float] code of density 0
      # @param steps [Float] codes a unit of density
      def initialize(scale:, black:, steps:)
        @scale, @black, @steps = scale, black, steps
      end

      def encode(density) = (density * @steps + @black) / @scale

      def decode(code) = (code * @scale - @black) / @steps

      # @return [Array] operations from code values to ACES2065-1
      def decoding
        [Pointwise::Curve.new(method(:decode), domain: Pointwise::Curve::LOG), Pointwise::Matrix.new(TO_CID),
          Pointwise::Curve.new(Adx.method(:exposure), domain: Pointwise::Curve::LOG), Pointwise::Matrix.new(TO_ACES)]
      end

      # @return [Array] operations from ACES2065-1 to code values
      def encoding
        [Pointwise::Matrix.new(Matrix3.inverse(TO_ACES)), Pointwise::Curve.new(Adx.method(:density)),
          Pointwise::Matrix.new(Matrix3.inverse(TO_CID)), Pointwise::Curve.new(method(:encode))]
      end

      class << self
        # @return [Encoding] registered
        def register(id, label:, **codes)
          adx = new(**codes)
          Encoding.register(Encoding.new(id:, label:, source: "SMPTE ST 2065-3:2012", kind: Encoding::SCENE, primaries: Primaries::AP0,
            transfer: adx, decoding: adx.decoding, encoding: adx.encoding))
        end

        # @param cid [Numo::NArray] channel-independent density
        # @return [Numo::NArray] exposure
        def exposure(cid)
          log = interpolate(cid, DENSITY, LOG_EXPOSURE)
          Piecewise.exp10(Piecewise.select(cid <= DENSITY.last, log, cid * SLOPE - REFERENCE))
        end

        # @param exposure [Numo::NArray] what is not positive counts as the least
        # @return [Numo::NArray] channel-independent density
        def density(exposure)
          log = Numo::NMath.log10(exposure.clip(10.0**LOG_EXPOSURE.first, nil))
          table = interpolate(log, LOG_EXPOSURE, DENSITY)
          Piecewise.select(log <= LOG_EXPOSURE.last, table, (log + REFERENCE) / SLOPE)
        end

        private

        # Straight between the points, held at the ends.
        def interpolate(x, from, to)
          result = x * 0.0 + to.first
          from.each_cons(2).zip(to.each_cons(2)) do |(x0, x1), (y0, y1)|
            result += (x.clip(x0, x1) - x0) * ((y1 - y0) / (x1 - x0))
          end
          result
        end
      end
    end
  end
end
