# frozen_string_literal: true

module Mordant
  module Pointwise
    # The head of a chain: per-channel functions straight from 16-bit source
    # code values, one entry each, so that nothing is interpolated.
    class CodeTable
      CODES = 65_536
      LARGEST_CODE = 65_535.0

      # A number for each code.
      class Entries
        # @param numbers [Numo::SFloat]
        def initialize(numbers)
          @numbers = numbers
        end

        # @param plane [Numo::UInt16, Recorded]
        # @return [Numo::SFloat, Recorded]
        def call(plane) = plane.is_a?(Recorded) ? plane.found_in(self) : @numbers[plane].dup

        # @return [String] floats
        def memory = @memory ||= @numbers.to_binary
      end

      # @param curve [Curve] from code / 65_535 onward
      def initialize(curve)
        codes = Numo::DFloat.new(CODES).seq / LARGEST_CODE
        tables = curve.functions.uniq.to_h { |function| [function, Entries.new(Numo::SFloat.cast(function.call(codes)))] }
        @tables = curve.functions.map { |function| tables.fetch(function) }.freeze
        freeze
      end

      # The codes as numbers of 0.0..1.0.
      PLAIN = new(Curve.new(:itself.to_proc))

      # @param planes [Array<Numo::UInt16>]
      # @return [Array<Numo::SFloat>]
      def call(planes)
        planes.each_with_index.map { |plane, channel| @tables[channel].call(plane) }
      end

      def recordable? = true
    end
  end
end
