# frozen_string_literal: true

module Mordant
  module Pointwise
    # What formulas do to a pixel, written down as a list of instructions that can be
    # compiled (see Kernel). The formulas run once, on stand-ins for planes (Recorded), and so
    # stay where they are.
    #
    # An instruction is a name and its operands: places of earlier instructions, or numbers of
    # constants and of tables. Numbers that differ from picture to picture are constants, and so
    # recipes made of the same steps have equal lists. Every instruction is one whose result IEEE 754
    # leaves no choice about (no logarithms, no fused products), so that what is compiled
    # gives the same floats as Numo, bit for bit.
    class Recording
      # @return [Array<Array>] instructions, in an order in which they can be carried out
      attr_reader :instructions
      # @return [Array<Float>]
      attr_reader :constants
      # @return [Array<#memory>] tables that instructions read
      attr_reader :tables
      # @return [Array<Integer>] places of what is kept
      attr_reader :results

      # @param kinds [Array<Symbol>] :floats, :codes (of 16 bits) or :wholes (of 32) of each plane
      # @yieldparam planes [Array<Recorded>]
      # @yieldreturn [Array<Recorded>] what is kept: floats, 16 or 8 bits, masks of what should be nowhere, or what counts and sums
      def initialize(kinds)
        @instructions, @constants, @tables = [], [], []
        planes = kinds.each_with_index.map { |kind, number| Recorded.new(self, add(kind, number)) }
        @results = yield(*planes).map(&:place).freeze
      end

      # @param operation [#call]
      # @return [Boolean] it calls nothing of planes that Recorded has not
      def self.takes?(operation) = operation.respond_to?(:recordable?) && operation.recordable?

      # @return [Array] equal ones do the same with their constants and tables
      def form = [instructions, results]

      # @param attributes [Hash{String => String}] see Listing
      # @return [String]
      def listing(attributes) = Listing.new(self, attributes).to_s

      # @param operands [Array<Integer>]
      # @return [Integer] its place
      def add(name, *operands)
        instructions << [name, *operands].freeze
        instructions.size - 1
      end

      # @param value [Float, Recorded]
      # @return [Integer] its place
      def place_of(value)
        return value.place if value.is_a?(Recorded)

        constants << Float(value)
        add(:constant, constants.size - 1)
      end

      # @param table [#memory]
      # @return [Integer] its number
      def number_of(table) = tables.index { |other| other.equal?(table) } || (tables << table).size - 1
    end
  end
end
