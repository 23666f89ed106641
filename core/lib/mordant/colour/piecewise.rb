# frozen_string_literal: true

module Mordant
  module Colour
    # Functions made of pieces.
    module Piecewise
      module_function

      # @param mask [Numo::Bit] where the first holds
      # @param yes [Numo::NArray]
      # @param no [Numo::NArray]
      # @return [Numo::NArray] a new array; NaN follows whichever piece the mask chose
      def select(mask, yes, no)
        out = no.dup
        out[mask] = yes[mask] if mask.any?
        out
      end

      # 10**x without the cost of a general power.
      def exp10(x) = Numo::NMath.exp(x * Math.log(10.0))

      def exp2(x) = Numo::NMath.exp(x * Math.log(2.0))

      # The power of positive values, for exponents above 0; what is not positive
      # becomes 0. Quicker than a general power.
      def power(x, exponent)
        log = Numo::NMath.log(x.clip(0.0, nil))
        Numo::NMath.exp((log.inplace * exponent).out_of_place!)
      end

      # 0 up to 0, 1 from 1 on, and 3u^2 - 2u^3 between, which comes in and goes out level.
      def joined(x)
        u = x.clip(0.0, 1.0)
        u * u * (u * -2.0 + 3.0)
      end
    end
  end
end
