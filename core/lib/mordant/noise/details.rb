# frozen_string_literal: true

module Mordant
  module Noise
    # A plane parted by detail size: what each of ever wider blurs takes away, and what is left. Their sum is the plane.
    #
    # Source: J.-L. Starck, F. Murtagh, Image restoration with noise suppression using the wavelet transform, Astron.
    # Astrophys. 288 (1994): the undecimated transform with holes and a cubic B-spline.
    module Details
      SCALES = 4
      # What each has of the variance of white noise.
      WHITE = [0.7924, 0.0404, 0.0074, 0.0018].freeze
      SPLINE = [6.0, 4.0, 1.0].freeze # /16, of the middle and on either side

      module_function

      # @param plane [Numo::SFloat] [n]
      # @param window [Grade::Window]
      # @param scales [Integer]
      # @param first [Integer] size of the finest, 0 that of single pixels
      # @return [Array(Array<Numo::SFloat>, Numo::SFloat)] fine to coarse, and the rest
      def of(plane, window, scales: SCALES, first: 0)
        parts = Array.new(scales) do |scale|
          smooth = Area::Taps.new(SPLINE, apart: 2**(first + scale)).call(plane, window)
          (plane - smooth).tap { plane = smooth }
        end
        [parts, plane]
      end

      # @return [Integer] pixels around one that parts depend on
      def margin(scales = SCALES) = 2 * (2**scales - 1)
    end
  end
end
