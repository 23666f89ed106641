# frozen_string_literal: true

module Mordant
  module Cut
    module Changes
      # What of a picture stays as it is when its light changes: where it is brighter and darker than what is right beside, each by how much
      # this differs there.
      #
      # Source: local contrast normalization, K. Jarrett and others, What is the best multi-stage architecture for object recognition?, ICCV 2009.
      module Detail
        REACH = 2 # pixels either way that are right beside
        FAINT = 0.02 # of white, below which a difference may be noise

        module_function

        # @param luma [Numo::SFloat] [Thumbs::HEIGHT, Thumbs::WIDTH], of white; what is added to all of it makes no difference
        # @return [Numo::SFloat] of the same shape, below 2 * REACH + 1 either way, 0 where nothing differs
        def of(luma)
          beyond = luma - mean(luma)
          beyond / (Numo::NMath.sqrt(mean(beyond * beyond)) + FAINT)
        end

        # @return [Numo::SFloat] mean of all that is right beside each pixel, with it; edges go on
        def mean(picture)
          BESIDE.map { |rows, _| picture[rows, true] }.sum.then { |sum| BESIDE.map { |_, columns| sum[true, columns] }.sum } / BESIDE.size**2
        end

        BESIDE = (-REACH..REACH).map { |by| [Thumbs::HEIGHT, Thumbs::WIDTH].map { |edge| Array.new(edge) { |at| (at + by).clamp(0, edge - 1) } } }.freeze
        private_constant :BESIDE
      end
    end
  end
end
