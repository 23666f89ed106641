# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # Values proportional to light.
      module Linear
        module_function

        def encode(linear) = linear

        def decode(code) = code
      end
    end
  end
end
