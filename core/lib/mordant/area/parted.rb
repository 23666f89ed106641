# frozen_string_literal: true

module Mordant
  module Area
    # A loop over planes in LLVM's intermediate language, run in parts of lines at once, each in a room of its own.
    module Parted
      # @param program [#form, #listing] see Pointwise::Compiler: its first table is the room, where there is one
      # @param count [Integer] that it is told
      # @param from [Numo::NArray] the plane that comes in, lying together
      # @param into [Numo::NArray] the plane that is made, allocated
      # @param parts [Array<Range<Integer>>] of its lines
      # @param room [Array(Class, Integer), nil] of numbers that a part works in: their type, and how many
      # @param tables [Array<Numo::NArray, String>] those after the room
      # @yieldparam part [Range<Integer>]
      # @yieldreturn [String] constants of a part, as it reads them
      # @return [Numo::NArray] into
      # @raise [Error] of a program that the compiler does not take
      # @raise [ShapeError] of numbers that lie apart
      def self.run(program, count, from, into, parts, room: nil, tables: [])
        function = Pointwise::Compiler.function(program)
        planes = [[from, false], [into, true]].map { |plane, written| [Pointwise::Memory.address(plane, written:)].pack("J") }
        Pointwise::Together.each(parts) do |part|
          own = room && room.first.new(room.last).allocate
          function.call(count, *planes, yield(part), [own, *tables].compact.map { |table| Pointwise::Memory.address(table, written: table.equal?(own)) }.pack("J*"))
          own&.free
        end
        into
      end
    end
  end
end
