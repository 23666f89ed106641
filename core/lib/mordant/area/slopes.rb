# frozen_string_literal: true

module Mordant
  module Area
    # Rows and columns drawn straight between those of a smaller plane: along rows first, and then down columns, each by
    #
    #   from + (to - from) share
    #
    # in LLVM's intermediate language, or in Numo to the same bits.
    #
    # Source: LLVM language reference, release 15.
    class Slopes
      include Wholes

      SIZES = %w[width blocks].freeze
      RANGES = %w[firstblock endblock firstrow endrow].freeze
      TABLES = %w[room columnfrom columnto columnshare rowfrom rowto rowshare].freeze
      # One way of a picture: places in the smaller plane that lie before and after each, and shares of the way between them.
      #
      # from, to: Numo::Int64 [n]; share: Numo::SFloat [n]
      Way = Struct.new(:from, :to, :share)

      class << self
        # @param means [Numo::SFloat] [blocks down, blocks across]
        # @param down [Way]
        # @param across [Way]
        # @return [Numo::SFloat] [n], row by row
        def draw(means, down, across)
          size = down.share.size * across.share.size
          return plainly(means, down, across).reshape!(size) unless worth?(size, across.share.size)

          means, room = Pointwise::Memory.together(means), Numo::SFloat.new(means.shape[0] * across.share.size).allocate
          parts = Pointwise::Together.parts(down.share.size, across.share.size)
          made = Parted.run(LOOP, size, means, Numo::SFloat.new(size).allocate, parts, tables: [room, *across.to_a, *down.to_a]) do |part|
            [across.share.size, means.shape[1], down.from[part.begin], down.to[part.end - 1] + 1, part.begin, part.end].pack("q6")
          end
          made.tap { room.free }
        end

        private

        def worth?(size, width) = width >= Wholes::LANES && Pointwise::Kernel.here? && (size >= Pointwise::Kernel::LEAST || Pointwise::Compiler.kept?(LOOP))

        def plainly(means, down, across)
          before = means[true, across.from]
          rows = (means[true, across.to] - before) * across.share + before
          above = rows[down.from, true]
          (rows[down.to, true] - above) * down.share.reshape(down.share.size, 1) + above
        end
      end

      # @return [Array] see Pointwise::Compiler
      def form = [:slopes]

      # run(count, inputs, outputs, constants, tables): constants are SIZES (i64), of rows of the picture and of the smaller plane, and RANGES
      # (i64), of rows of that plane that are needed and of rows of the picture that are made; tables are TABLES, with the room for rows that
      # have been drawn, where two that are made at once may both put the same. It returns 1.
      #
      # @param attributes [Hash{String => String}] see Pointwise::Listing
      # @return [String]
      def listing(attributes)
        Pointwise::Listing.function(attributes, <<~BODY.chomp)
          %in = load ptr, ptr %inputs
          %out = load ptr, ptr %outputs
          #{[*SIZES, *RANGES].each_with_index.map { |name, place| taken(name, "i64", "%constants", place) }.join("\n")}
          #{TABLES.each_with_index.map { |name, place| taken(name, "ptr", "%tables", place) }.join("\n")}
          %lastx = sub i64 %width, #{LANES}
          br label %wide
          #{along}
          #{down}
          done:
          ret i32 1
        BODY
      end

      private

      # Each row of the smaller plane, number by number.
      def along
        <<~PART.chomp
          wide:
          %b = phi i64 [ %firstblock, %entry ], [ %nextb, %widedone ]
          %blockrow = mul i64 %b, %blocks
          %roomrow = mul i64 %b, %width
          br label %column
          column:
          %c = phi i64 [ 0, %wide ], [ %nextc, %column ]
          #{taken("before", "i64", "%columnfrom", "%c")}
          #{taken("after", "i64", "%columnto", "%c")}
          #{taken("part", "float", "%columnshare", "%c")}
          #{placed("left", "%in", "%blockrow", "%before")}
          #{placed("right", "%in", "%blockrow", "%after")}
          #{placed("held", "%room", "%roomrow", "%c")}
          #{drawn("number", "%left", "%right", "%part", "%held", "float")}
          #{onward("c", "%width", "column", "widedone")}
          widedone:
          #{onward("b", "%endblock", "wide", "tall")}
        PART
      end

      # Each row of the picture, LANES at a time.
      def down
        <<~PART.chomp
          tall:
          %y = phi i64 [ %firstrow, %widedone ], [ %nexty, %talldone ]
          #{taken("above", "i64", "%rowfrom", "%y")}
          #{taken("below", "i64", "%rowto", "%y")}
          #{taken("share", "float", "%rowshare", "%y")}
          %lane = insertelement #{FLOATS} poison, float %share, i32 0
          %shares = shufflevector #{FLOATS} %lane, #{FLOATS} poison, <#{LANES} x i32> zeroinitializer
          %aboverow = mul i64 %above, %width
          %belowrow = mul i64 %below, %width
          %outrow = mul i64 %y, %width
          br label %some
          some:
          %x = phi i64 [ 0, %tall ], [ %nextx, %some ]
          #{placed("upper", "%room", "%aboverow", "%x")}
          #{placed("lower", "%room", "%belowrow", "%x")}
          #{placed("put", "%out", "%outrow", "%x")}
          #{drawn("numbers", "%upper", "%lower", "%shares", "%put", FLOATS)}
          %afterx = add i64 %x, #{LANES}
          %nextx = call i64 @llvm.umin.i64(i64 %afterx, i64 %lastx)
          %morex = icmp ult i64 %x, %lastx
          br i1 %morex, label %some, label %talldone
          talldone:
          #{onward("y", "%endrow", "tall", "done")}
        PART
      end

      def taken(name, type, from, place) = "%#{name}at = getelementptr #{type}, ptr #{from}, i64 #{place}\n%#{name} = load #{type}, ptr %#{name}at"

      # An address in a plane.
      def placed(name, plane, row, place) = "%#{name}place = add i64 #{row}, #{place}\n%#{name} = getelementptr float, ptr #{plane}, i64 %#{name}place"

      # What lies between two addresses, put at another.
      def drawn(name, from, to, share, into, type)
        <<~PART.chomp
          %#{name}from = load #{type}, ptr #{from}, align 4
          %#{name}to = load #{type}, ptr #{to}, align 4
          %#{name}off = fsub #{type} %#{name}to, %#{name}from
          %#{name}way = fmul #{type} %#{name}off, #{share}
          %#{name} = fadd #{type} %#{name}way, %#{name}from
          store #{type} %#{name}, ptr #{into}, align 4
        PART
      end

      LOOP = new.freeze
      private_constant :LOOP
    end
  end
end
