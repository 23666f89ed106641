# frozen_string_literal: true

module Mordant
  module Colour
    module ACES
      # Display light for a white other than the display's own: rolled off and
      # scaled down so that no channel of that white is cut off.
      #
      # Source: ODT.Academy.*_D60sim_*.ctl, P3DCI_48nits.ctl and
      # P3DCI_D65sim_48nits.ctl; ACESlib.ODT_Common.ctl, roll_white_fwd.
      class SimulatedWhite
        # @param scale [Float] of display light
        # @param white [Float] what light of 1.0 is rolled to and held at
        # @param width [Float] of the roll-off; 0 for none
        def initialize(scale:, white: 1.0, width: 0.0)
          @scale, @white, @width = scale, white, width
        end

        # @return [Array] operations on AP1 display light
        def operations
          roll = @width.zero? ? [] : [Pointwise::Curve.new(method(:roll))]
          [*roll, Pointwise::Clamp.new(nil, @white), Pointwise::Matrix.new(Matrix3.diagonal([@scale] * 3))]
        end

        private

        # Untouched below 1 - width, a quadratic up to 1, straight beyond.
        def roll(light)
          knee = 1.0 - @width
          a = knee - @white + @width
          b = 2 * (@white - knee) - @width
          t = (light * -1 + 1.0) / @width
          straight = t * -b + @white
          curved = (t * a + b) * t * -1 + @white
          Piecewise.select(t < 0.0, straight, Piecewise.select(t > 1.0, light, curved))
        end
      end
    end
  end
end
