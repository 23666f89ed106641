# frozen_string_literal: true

require "fiddle"

module Mordant
  module Pointwise
    # A recording that can be run on memory: all that is done to a pixel in one pass, instead of one for each
    # product and sum, to the same bits. Compiled when it is first run.
    class Kernel
      LEAST = 12_000 # pixels that compiling is worth

      # @return [Boolean] there are kernels here; without the compiler Numo does all of the work
      def self.here? = Compiler.here?

      # @param memory [String] that lives as long as the address is used
      # @return [Integer]
      def self.address(memory) = Fiddle::Pointer[memory].to_i

      # @param kinds [Array<Symbol>] see Recording
      # @yield see Recording
      def initialize(kinds, &)
        @recording = Recording.new(kinds, &)
        @constants = @recording.constants.pack("f*")
      end

      # @return [Integer] how many planes it makes
      def results = @recording.results.size

      # @param size [Integer] pixels
      # @return [Boolean] they are worth running it
      def worth?(size) = Kernel.here? && (size >= LEAST || (size >= Listing::LANES && (!@function.nil? || Compiler.kept?(@recording))))

      # @param count [Integer] pixels, Listing::LANES or more
      # @param inputs [Array<String, Integer>] planes, or their addresses, as many elements each
      # @param outputs [Array<String, Integer>] memory for those that are made, elsewhere than those
      # @raise [Error] of a recording that the compiler does not take
      # @return [Boolean] no float that was made is NaN, and no mask holds anywhere
      def run(count, inputs, outputs)
        @function ||= Compiler.function(@recording)
        tables = @recording.tables.map(&:memory) # held until it has run
        @function.call(count, packed(inputs), packed(outputs), @constants, packed(tables)) == 1
      end

      private

      def packed(list) = list.map { |one| one.is_a?(String) ? Kernel.address(one) : one }.pack("J*")
    end
  end
end
