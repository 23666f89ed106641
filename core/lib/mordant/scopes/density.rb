# frozen_string_literal: true

module Mordant
  module Scopes
    # Counts as brightness to look at.
    module Density
      # What a single pixel is shown at, of 255, so that it can be found.
      FAINTEST = 40

      module_function

      # @param counts [Numo::UInt32, Numo::Int32] any shape
      # @param typical [Float] count shown at about two thirds of full
      # @return [Numo::UInt8] same shape; 0 only where the count is 0
      def brightness(counts, typical:)
        count = Numo::SFloat.new(counts.max.to_i + 1).seq
        level = (Numo::NMath.exp(count * (-1.0 / typical)) * -1 + 1.0) * (255 - FAINTEST) + FAINTEST
        level[0] = 0.0
        Numo::UInt8.cast(level)[counts].dup
      end
    end
  end
end
