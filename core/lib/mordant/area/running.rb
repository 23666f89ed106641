# frozen_string_literal: true

module Mordant
  module Area
    # Box filters along the rows of a plane and then down its columns, with running sums of whole numbers: what Boxes does step by step,
    # compiled as one loop, to the same bits. A strip of lines goes through all passes while it is near the processor.
    class Running
      # @param height [Integer]
      # @param width [Integer]
      # @return [Boolean] a plane of that size is worth it
      def self.worth?(height, width) = [height, width].min >= Wholes::LANES && Pointwise::Kernel.here? && (height * width >= Pointwise::Kernel::LEAST || Pointwise::Compiler.kept?(FIRST))

      FIRST, LAST = Strip.new(:floats, :wholes, :rows), Strip.new(:wholes, :floats, :columns)

      # @param radius [Integer] pixels
      # @param share [Float] of the pixel beyond the radius, on either side
      # @param passes [Integer]
      def initialize(radius, share, passes)
        @numbers = [radius, passes].pack("q2") + [share, 1.0 / (2 * radius + 1 + 2 * share)].pack("d2")
        freeze
      end

      #
      # @param rows [Numo::SFloat] [height, width]; never written to
      # @return [Numo::SFloat] [height, width]
      def call(rows)
        height, width = rows.shape
        rows = Pointwise::Memory.together(rows)
        along = through(FIRST, rows, Numo::DFloat.new(height, width), height, width)
        through(LAST, along, Numo::SFloat.new(height, width), width, height).tap { along.free }
      end

      private

      # @param from [Numo::NArray]
      # @param into [Numo::NArray] of the same shape, without memory yet
      # @param count [Integer] lines
      # @param length [Integer] of each
      # @return [Numo::NArray]
      def through(strip, from, into, count, length)
        parts = Pointwise::Together.parts(count, length, least: Wholes::LANES)
        Parted.run(strip, count, from, into.allocate, parts, room: [Numo::UInt8, strip.room(length)]) { |part| [length].pack("q") + @numbers + [part.begin, part.end].pack("q2") }
      end
    end
  end
end
