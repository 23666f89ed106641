# frozen_string_literal: true

module Mordant
  module Area
    # Box filters down the columns of a plane, with running sums of whole numbers: what Boxes does along rows step by step, compiled as
    # one loop, to the same bits. A strip of columns goes through all passes while it is near the processor.
    class Running
      # @param height [Integer]
      # @param width [Integer]
      # @return [Boolean] a plane of that size is worth it
      def self.worth?(height, width) = [height, width].min >= Strip::LANES && Pointwise::Kernel.here? && (height * width >= Pointwise::Kernel::LEAST || Pointwise::Compiler.kept?(FIRST))

      FIRST, LAST = Strip.new(:floats, :wholes), Strip.new(:wholes, :floats)

      # @param radius [Integer] pixels
      # @param share [Float] of the pixel beyond the radius, on either side
      # @param passes [Integer]
      def initialize(radius, share, passes)
        @numbers = [radius, passes].pack("q2") + [share, 1.0 / (2 * radius + 1 + 2 * share)].pack("d2")
        freeze
      end

      # Both ways: the columns of what lies on its side are rows.
      #
      # @param rows [Numo::SFloat] [height, width]; never written to
      # @return [Numo::SFloat] [height, width]
      def call(rows)
        across = down(rows.transpose.dup, FIRST, Numo::DFloat)
        down(across.transpose.dup.tap { across.free }, LAST, Numo::SFloat)
      end

      private

      # @param rows [Numo::NArray] [height, width]; used up
      # @return [Numo::NArray] of a type
      def down(rows, strip, type)
        height, width = rows.shape
        into, room = type.new(height, width).allocate, Numo::UInt8.new(strip.room(height)).allocate
        from, *others = [[rows, false], [into, true], [room, true]].map { |memory, written| [Pointwise::Memory.address(memory, written:)].pack("J") }
        Pointwise::Compiler.function(strip).call(width, from, others.first, [height].pack("q") + @numbers, others.last)
        [rows, room].each(&:free)
        into
      end
    end
  end
end
