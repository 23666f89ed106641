# frozen_string_literal: true

module Mordant
  module Pointwise
    # A recording that can be run on memory: all that is done to a pixel in one pass, instead of one for each
    # product and sum, to the same bits. Compiled when it is first run.
    class Kernel
      LEAST = 12_000 # pixels that compiling is worth
      BYTES = {floats: 4, codes: 2, wholes: 4}.freeze # of one

      # @return [Boolean] there are kernels here; without the compiler Numo does all of the work
      def self.here? = Compiler.here? && Memory.here?

      # @param kinds [Array<Symbol>] see Recording
      # @yield see Recording
      def initialize(kinds, &)
        @recording = Recording.new(kinds, &)
        @constants = @recording.constants.pack("f*")
        @takes = kinds.map { |kind| BYTES.fetch(kind) }
        @makes = Listing.bytes(@recording)
      end

      # @return [Integer] how many planes it makes
      def results = @recording.results.size

      # @param size [Integer] pixels
      # @return [Boolean] they are worth running it
      def worth?(size) = Kernel.here? && (size >= LEAST || (size >= Listing::LANES && (!@function.nil? || Compiler.kept?(@recording))))

      # @param count [Integer] pixels, Listing::LANES or more
      # @param inputs [Array<Numo::NArray, String, Integer>] planes, or their addresses, as many elements each
      # @param outputs [Array<Numo::NArray, String, Integer>] memory for those that are made, elsewhere than those; arrays lie together in it
      # @raise [Error] of a recording that the compiler does not take
      # @return [Boolean] no float that was made is NaN, and no mask holds anywhere
      def run(count, inputs, outputs)
        @function ||= Compiler.function(@recording)
        tables = tables_read # held until it has run
        held = inputs.map { |one| one.is_a?(Numo::NArray) ? Memory.together(one) : one }
        from, into = held.map { |one| Memory.address(one) }, outputs.map { |one| Memory.address(one, written: true) }
        Together.each(@makes.all? ? Together.parts(count) : [0...count]) do |part|
          @function.call(part.size, at(from, @takes, part), at(into, @makes, part), @constants, tables.last)
        end.all?(1)
      end

      private

      # @return [Array(Array<String>, String)] memory of the tables as they are now, and its addresses
      def tables_read
        now, known = @recording.tables.map(&:memory), @read
        return known if known && known.first.zip(now).all? { |before, memory| before.equal?(memory) }

        @read = [now, now.map { |one| Memory.address(one) }.pack("J*")].freeze
      end

      # @return [String] addresses of where a part of planes begins
      def at(addresses, bytes, part)
        return addresses.pack("J*") if part.begin.zero?

        addresses.zip(bytes).map { |address, size| address + part.begin * size }.pack("J*")
      end
    end
  end
end
