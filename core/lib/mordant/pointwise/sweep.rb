# frozen_string_literal: true

module Mordant
  module Pointwise
    # A formula of any number of planes in one sweep over them: a Kernel where a picture is worth it, tile by tile Numo where it is
    # small, and in tiles where a NaN came of it, as what is read of a table is that has not been made yet (see MadeWhenRead). The
    # formula does only what Recorded has.
    class Sweep
      TYPES = {floats: Numo::SFloat, wholes: Numo::UInt32, codes: Numo::UInt16}.freeze
      CODES = 65_535 # the greatest

      # @param count [Integer] planes that it is of
      # @param of [Symbol] of TYPES
      # @param makes [Symbol] of TYPES, floats or codes: the floats of the formula, cut off to whole numbers
      # @yieldparam planes [Array<Numo::NArray, Recorded>]; not to be written to
      # @yieldreturn [Array<Numo::SFloat, Recorded>] of codes 0..CODES, and NaN, which becomes 0
      def initialize(count, of: :floats, makes: :floats, &formula)
        @formula, @type, @made = formula, TYPES.fetch(of), TYPES.fetch(makes)
        @kernel = Kernel.new([of] * count) { |*planes| (makes == :codes) ? formula.call(*planes).map(&:code) : formula.call(*planes) }
        freeze
      end

      # @param planes [Array<Numo::NArray>] vectors of its type and of one length
      # @param into [Array<Numo::NArray>, nil] of what it makes, elsewhere, each lying together in memory; nil: new ones
      # @return [Array<Numo::SFloat, Numo::UInt16>] those
      # @raise [ShapeError] of planes and rooms whose memory would be read or written past
      def call(*planes, into: nil)
        size = planes.first.size
        raise ShapeError, "expected #{@type} of #{size}, found #{planes.map { |plane| "#{plane.class} of #{plane.shape}" }.join(", ")}" unless planes.all? { |plane| plane.is_a?(@type) && plane.shape == [size] }

        held = planes.map { |plane| Memory.together(plane) }
        from = held.map { |plane| Memory.address(plane) } if @kernel.worth?(size)
        filled(rooms(size, into), from) { |range| held.map { |plane| plane[range] } }
      end

      # The same of a picture.
      #
      # @param rgb [Numo::SFloat] [3, n]
      # @param planes [Array<Numo::SFloat>] [n] of each that comes after its three
      # @return [Numo::SFloat] [3, n], a new array
      def picture(rgb, *planes)
        Numo::SFloat.new(*rgb.shape).allocate.tap { |out| call(*Pointwise.rows(rgb), *planes, into: Pointwise.rows(out)) }
      end

      # The same of planes that are parts of one, such as neighbours.
      #
      # @param plane [Numo::SFloat] [m], lying together
      # @param offs [Array<Integer>] where each of them begins in it
      # @param into [Numo::SFloat] [n] as #call
      # @raise [ShapeError] of parts that are not all within
      def parts(plane, offs, into)
        size = into.size
        raise ShapeError, "expected parts of #{plane.size}, found #{size} from #{offs.minmax.join(" and ")} on" unless plane.is_a?(Numo::SFloat) && offs.min >= 0 && offs.max + size <= plane.size

        from = Memory.address(plane).then { |first| offs.map { |off| first + off * @type::ELEMENT_BYTE_SIZE } } if @kernel.worth?(size)
        filled(rooms(size, [into]), from) { |range| offs.map { |off| plane[(range.begin + off)...(range.end + off)] } }
      end

      private

      def rooms(size, into)
        made = into || Array.new(@kernel.results) { @made.new(size).allocate }
        raise ShapeError, "expected #{@kernel.results} #{@made} of #{size} to write to, found #{made.map { |room| "#{room.class} of #{room.shape}" }.join(", ")}" unless made.size == @kernel.results && made.all? { |room| room.is_a?(@made) && room.shape == [size] }

        made
      end

      # @param from [Array<Integer>, nil] addresses of planes; nil: without a kernel
      # @yieldparam range [Range] of a tile
      # @yieldreturn [Array<Numo::NArray>] planes there
      # @return [Array<Numo::NArray>] rooms
      def filled(rooms, from)
        size, into = rooms.first.size, (rooms.map { |room| Memory.address(room, written: true) } if from)
        return rooms if from && @kernel.run(size, from, into)

        Pointwise.each_tile(size, SHORT) do |range|
          next if from && @kernel.run(range.size, moved(from, range, @type), moved(into, range, @made))

          one_by_one(*yield(range)).zip(rooms) { |made, room| room[range] = made }
        end
        rooms
      end

      def moved(addresses, range, type) = addresses.map { |address| address + range.begin * type::ELEMENT_BYTE_SIZE }

      # NaN becomes the least integer, and so 0.
      def one_by_one(*planes)
        made = @formula.call(*planes)
        (@made == Numo::UInt16) ? made.map { |plane| Numo::UInt16.cast(Numo::Int32.cast(plane).clip(0, CODES)) } : made
      end
    end
  end
end
