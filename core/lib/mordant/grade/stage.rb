# frozen_string_literal: true

module Mordant
  module Grade
    # A step that depends on more than a pixel's own value, at its strength.
    #
    # What it runs has call(rgb, width, height): a Numo::SFloat [3, width * height] to a
    # new one, in the step's domain.
    class Stage
      # @param process [#call]
      # @param strength [Float] 0.0..1.0
      def initialize(process, strength)
        @process, @strength = process, strength
        freeze
      end

      # @param rgb [Numo::SFloat] [3, width * height]; never written to
      # @return [Numo::SFloat]
      def call(rgb, width, height)
        changed = @process.call(rgb, width, height)
        return changed if @strength == 1.0

        changed.inplace - rgb
        changed.inplace * @strength
        (changed.inplace + rgb).out_of_place!
      end
    end
  end
end
