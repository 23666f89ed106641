# frozen_string_literal: true

module Mordant
  module Steps
    # A look-up table of the library. Pictures are converted to the encoding the
    # table expects and back from the one it returns, without a rendering.
    class LutFile < Step
      named :lut, "LUT"
      domain :log

      text :lut, label: "file", from: :lut, neutral: "", about: "A .cube or CLF file of the library."
      text :expects, label: "expects", from: :encoding, neutral: "", about: "What the table wants to be given; empty: the working space."
      text :returns, label: "returns", from: :encoding, neutral: "", about: "What its values are; empty: the working space."
      text :interpolation, label: "between nodes", from: %w[tetrahedral trilinear], neutral: "tetrahedral",
        about: "How a lattice is read between its nodes."

      def neutral? = lut.empty?

      # @raise [MediaError, FormatError] of a file that is not there or at fault
      def operations(space)
        return [] if neutral?

        [*convert(space.log, expects), *table, *convert(returns, space.log)]
      end

      def stamps = neutral? ? [] : [Lut::Library.stamp(lut) || lut]

      def missing = (neutral? || Lut::Library.stamp(lut)) ? [] : [lut]

      def turns_into = returns.empty? ? nil : returns

      private

      def table
        Lut::Library.fetch(lut).operations.map do |operation|
          operation.is_a?(Lut::Lattice) ? operation.interpolated(interpolation.to_sym) : operation
        end
      end

      def convert(from, to)
        return [] if from.empty? || to.empty?

        Colour::Conversion.new(from:, to:).operations
      end
    end
  end
end
