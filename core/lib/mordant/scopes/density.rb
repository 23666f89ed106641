# frozen_string_literal: true

module Mordant
  module Scopes
    # Counts as brightness to look at.
    module Density
      # What a single pixel is shown at, of 255, so that it can be found.
      FAINTEST = 40

      module_function

      # @param counts [Numo::NArray] any shape
      # @param typical [Float] count shown at about two thirds of full
      # @return [Numo::UInt8] same shape; 0 only where the count is 0
      def brightness(counts, typical:)
        share = Numo::NMath.exp(Numo::SFloat.cast(counts) * (-1.0 / typical))
        level = (share * -1 + 1.0) * (255 - FAINTEST) + FAINTEST
        Numo::UInt8.cast(level * Numo::SFloat.cast(counts.clip(nil, 1)))
      end
    end
  end
end
