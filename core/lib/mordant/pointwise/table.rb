# frozen_string_literal: true

module Mordant
  module Pointwise
    # Interpolated tables. What an entry starts with and how it rises are the two parts of a complex
    # number, so that one look finds both: the look costs more than the arithmetic.
    module Table
      module_function

      # @param size [Integer]
      # @return [Numo::SComplex] whose entries have not been made: NaN
      def unmade(size) = Numo::SComplex.new(size).fill(Complex(Float::NAN, 0.0))

      # @param starts [Numo::NArray]
      # @param rises [Numo::NArray]
      # @return [Numo::SComplex]
      def pairs(starts, rises)
        both = Numo::SFloat.new(starts.size, 2).allocate
        both[true, 0] = starts
        both[true, 1] = rises
        Numo::SComplex.from_binary(both.to_binary)
      end

      # start + rise * rest of the entry at each index. What an index gathers is a slow lazy view
      # until it is copied, so it is.
      #
      # @param table [Numo::SComplex]
      # @param index [Numo::Int32, Numo::Int64]
      # @param rest [Numo::SFloat]
      # @return [Numo::SFloat] a new vector
      def interpolate(table, index, rest)
        found = table[index].dup
        out, starts = found.imag, found.real
        out.inplace * rest
        (out.inplace + starts).out_of_place!
      ensure
        [found, starts].each { |array| array&.free }
      end
    end
  end
end
