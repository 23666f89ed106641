# frozen_string_literal: true

module Mordant
  module Pointwise
    # A formula of any number of planes in one sweep over them: a Kernel where a picture is worth it, Numo where it is
    # small, or where a NaN came of it, as what is read of a table is that has not been made yet (see MadeWhenRead). The formula
    # does only what Recorded has.
    class Sweep
      FLOAT = 4 # bytes
      TYPES = {floats: Numo::SFloat, wholes: Numo::UInt32}.freeze

      # @param count [Integer] planes that it is of
      # @param of [Symbol] of TYPES
      # @yieldparam planes [Array<Numo::NArray, Recorded>]; not to be written to
      # @yieldreturn [Array<Numo::SFloat, Recorded>]
      def initialize(count, of: :floats, &formula)
        @formula, @type = formula, TYPES.fetch(of)
        @kernel = Kernel.new([of] * count, &formula)
        freeze
      end

      # @param planes [Array<Numo::NArray>] vectors of its type and of one length
      # @return [Array<Numo::SFloat>] new ones
      # @raise [ShapeError] of planes that its memory would be read past
      def call(*planes)
        size = planes.first.size
        raise ShapeError, "expected #{@type} of #{size}, found #{planes.map { |plane| "#{plane.class} of #{plane.shape}" }.join(", ")}" unless planes.all? { |plane| plane.is_a?(@type) && plane.shape == [size] }
        return @formula.call(*planes) unless @kernel.worth?(size)

        inputs = planes.map(&:to_binary)
        made(size, inputs).tap { inputs.each(&:clear) } || @formula.call(*planes)
      end

      # The same of a picture, tile by tile.
      #
      # @param rgb [Numo::SFloat] [3, n]
      # @param planes [Array<Numo::SFloat>] [n] of each that comes after its three
      # @return [Numo::SFloat] [3, n], a new array
      def picture(rgb, *planes)
        out = Numo::SFloat.new(*rgb.shape).allocate
        Pointwise.each_tile(rgb.shape[1], SHORT) do |range|
          call(*Pointwise.rows(rgb, range), *planes.map { |plane| plane[range] }).each_with_index { |plane, channel| out[channel, range] = plane }
        end
        out
      end

      # The same of planes that are parts of one, such as neighbours.
      #
      # @param plane [Numo::SFloat] [m]
      # @param offs [Array<Integer>] where each of them begins in it
      # @param size [Integer] of each
      # @return [Array<Numo::SFloat>]
      # @raise [ShapeError] of parts that are not all within
      def parts(plane, offs, size)
        raise ShapeError, "expected parts of #{plane.size}, found #{size} from #{offs.minmax.join(" and ")} on" unless plane.is_a?(Numo::SFloat) && offs.min >= 0 && offs.max + size <= plane.size

        alone = -> { @formula.call(*offs.map { |off| plane[off...(off + size)] }) }
        return alone.call unless @kernel.worth?(size)

        memory = plane.to_binary
        first = Kernel.address(memory)
        made(size, offs.map { |off| first + off * FLOAT }).tap { memory.clear } || alone.call
      end

      private

      # @param inputs [Array<String, Integer>] see Kernel#run
      # @return [Array<Numo::SFloat>, nil] nil where a NaN is among them
      def made(size, inputs)
        rooms = Array.new(@kernel.results) { "\0".b * (size * FLOAT) }
        made = rooms.map { |room| Numo::SFloat.from_binary(room) } if @kernel.run(size, inputs, rooms)
        rooms.each(&:clear)
        made
      end
    end
  end
end
