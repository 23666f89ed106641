# frozen_string_literal: true

module Mordant
  # Photographic material, as sensitometry describes it: densities over the logarithm of exposure.
  module Film
    STOP = Math.log10(2.0) # of log exposure
    POINT = 0.025 # of log exposure, of a printer light

    module_function

    # ln(1 + e^(x / width)) * width: 0 far below 0, x far above it.
    #
    # @param x [Numo::DFloat]
    # @param width [Float] of the bend
    # @return [Numo::DFloat]
    def bend(x, width) = Numo::DFloat.maximum(x, 0.0) + Numo::NMath.log1p(Numo::NMath.exp(x.abs * (-1.0 / width))) * width
  end
end
