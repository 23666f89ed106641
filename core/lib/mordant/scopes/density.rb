# frozen_string_literal: true

module Mordant
  module Scopes
    # Counts as brightness to look at.
    module Density
      # What a single pixel is shown at, of 255, so that it can be found.
      FAINTEST = 40
      # Typical counts from which on brightness is full: e^-18 of it is less than a float can tell.
      FULL = 18

      module_function

      # @param counts [Numo::UInt32, Numo::Int32] any shape
      # @param typical [Float] count shown at about two thirds of full
      # @return [Numo::UInt8] same shape; 0 only where the count is 0
      def brightness(counts, typical:)
        level, kernel = LEVELS.fetch(typical) { levels(typical).then { |level| [level, kernel(level)] } }
        return Numo::UInt8.cast(level)[counts.clip(0, level.size - 1)].dup unless kernel.worth?(counts.size)

        Numo::UInt8.new(*counts.shape).allocate.tap { |made| kernel.run(counts.size, [counts], [made]) }
      end

      LEVELS = Pointwise::Lately.new(8)
      private_constant :LEVELS

      # @return [Numo::SFloat] of each count, the last one of all above as well
      def levels(typical)
        count = Numo::SFloat.new((typical * FULL).ceil + 1).seq
        ((Numo::NMath.exp(count * (-1.0 / typical)) * -1 + 1.0) * (255 - FAINTEST) + FAINTEST).tap { |level| level[0] = 0.0 }
      end
      private_class_method :levels

      # @return [Pointwise::Kernel] from counts to their levels, cut off
      def kernel(level) = Pointwise::Kernel.new([:wholes]) { |count| [count.float.held(level.size - 1).found_in(Table.new(level.to_binary)).held(255).low] }
      private_class_method :kernel

      # memory: floats, see Pointwise::Recorded#found_in
      Table = Struct.new(:memory)
      private_constant :Table
    end
  end
end
