# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # A logarithm above a cut and a straight line below it, the form most camera
      # curves are published in:
      #
      #   code = c * log10(a * light + b) + d    light > cut
      #   code = e * light + f                   otherwise
      #
      # Light is scene light with 0.18 at mid grey; codes are full range.
      class LogToe
        # @param cut [Float] light where the pieces meet
        # @param code_cut [Float] code where they meet, where the publication gives one
        def initialize(a:, b:, c:, d:, e:, f:, cut:, code_cut: e * cut + f)
          @a, @b, @c, @d, @e, @f, @cut, @code_cut = a, b, c, d, e, f, cut, code_cut
          freeze
        end

        def encode(linear)
          log = Numo::NMath.log10(linear.clip(@cut, nil) * @a + @b) * @c + @d
          Piecewise.select(linear > @cut, log, linear * @e + @f)
        end

        def decode(code)
          Piecewise.select(code > @code_cut, (Piecewise.exp10((code - @d) / @c) - @b) / @a, (code - @f) / @e)
        end
      end
    end
  end
end
