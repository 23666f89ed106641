# frozen_string_literal: true

module Mordant
  module Matte
    module Refinements
      # What was all becomes nothing.
      class Invert < Refinement
        named :invert, "Invert"

        def neutral? = false

        def call(matte, _sight) = matte * -1.0 + 1.0
      end
    end
  end
end
