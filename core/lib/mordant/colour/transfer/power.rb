# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # A pure power, as ITU-R BT.1886 is with a black of zero. Negative values
      # become 0; nothing is held above 1.
      class Power
        attr_reader :exponent

        # @param exponent [Float] from code to light, such as 2.4
        def initialize(exponent)
          @exponent = exponent
          freeze
        end

        def encode(linear) = Piecewise.power(linear, 1.0 / exponent)

        def decode(code) = Piecewise.power(code, exponent)
      end
    end
  end
end
