# frozen_string_literal: true

module Mordant
  module Pointwise
    # A run of operations as one: recorded, compiled, and done in one pass over memory instead of
    # one for each product and sum, to the same bits. What is small is not worth
    # compiling and goes through the operations one by one.
    class Compiled
      # Raised where nothing can be said yet of what was asked for.
      class Unread < StandardError; end

      LEAST = 12_000 # pixels that compiling is worth
      FLOAT = 4 # bytes

      # Runs of what can be recorded each become one.
      #
      # @param operations [Array<#call>] tabulated
      # @param codes [Boolean] the first one takes 16-bit codes
      # @return [Array<#call>]
      def self.joined(operations, codes: false)
        runs = operations.slice_when { |a, b| Recording.takes?(a) != Recording.takes?(b) }
        runs.each_with_index.flat_map { |run, place| of(run, codes: codes && place.zero?) || run }
      end

      # @return [Compiled, nil]
      def self.of(operations, codes: false)
        new(operations, Recording.new(operations, codes:)) if Compiler.here? && Recording.takes?(operations.first)
      rescue Recording::Beyond
        nil
      end
      private_class_method :of

      # @param operations [Array<#call>]
      # @param recording [Recording] of them
      def initialize(operations, recording)
        @operations, @recording = operations, recording
        @quick = operations.map { |operation| operation.respond_to?(:quick) ? operation.quick : operation }
        @constants = recording.constants.pack("f*")
      end

      # @param planes [Array<Numo::NArray>] vectors of one length
      # @return [Array<Numo::SFloat>] new ones
      # @raise [Unread] where a result is NaN: an entry of a table has not been made yet (see MadeWhenRead), or a number was none
      def call(planes)
        return Chain.reduce(@quick, planes) unless worth?(planes.first.size)

        rows(Numo::NArray.vstack(planes)).then { |made| Array.new(3) { |channel| made[channel, true].dup } }
      end

      # @param size [Integer] pixels
      # @return [Boolean] they go through what is compiled
      def worth?(size) = @function || size >= LEAST || Compiler.kept?(@recording)

      # @param source [Numo::NArray] [3, n]
      # @param room [String] memory to work in, grown as needed
      # @return [Numo::SFloat] [3, n], new
      # @raise [Unread]
      def rows(source, room = +"")
        size = source.shape[1]
        count = -(-size / Listing::LANES) * Listing::LANES
        input = source.to_binary
        row = input.bytesize / 3
        input << "\0" * (row / size * (count - size))
        needed = 3 * count * FLOAT
        room << "\0" * (needed - room.bytesize) if room.bytesize < needed
        done = run(count, rows_of(input, row), rows_of(room, count * FLOAT)) == 1
        input.clear
        raise Unread unless done

        Numo::SFloat.from_binary(room.byteslice(0, needed), [3, count]).then { |made| (count == size) ? made : made[true, 0...size].dup }
      end

      private

      def run(count, inputs, outputs)
        @function ||= Compiler.function(@recording)
        tables = @recording.tables.map(&:memory)
        @function.call(count, inputs.pack("J*"), outputs.pack("J*"), @constants, tables.map { |table| address(table) }.pack("J*"))
      end

      def rows_of(memory, length) = Array.new(3) { |channel| address(memory) + channel * length }

      def address(memory) = Fiddle::Pointer[memory].to_i
    end
  end
end
