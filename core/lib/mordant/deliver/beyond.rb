# frozen_string_literal: true

module Mordant
  module Deliver
    # Pixels that codes cannot say.
    module Beyond
      SMALLEST = 1e-3 # beyond the codes, as a share of them

      module_function

      # @param rgb [Numo::SFloat] [3, n] codes; those that are not there lie within
      # @param size [Integer] pixels of the whole picture
      # @param float [Boolean] the codes have no end upwards
      # @return [Float] share of the picture
      def share(rgb, size:, float: false)
        least, most = rgb.minmax unless rgb.empty?
        return 0.0 if least.nil? || (least > -SMALLEST && (float || most < 1 + SMALLEST))

        out = rgb < -SMALLEST
        out |= rgb > 1 + SMALLEST unless float
        (out[0, true] | out[1, true] | out[2, true]).count_true.fdiv(size).round(5)
      end
    end
  end
end
