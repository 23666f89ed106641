# frozen_string_literal: true

module Mordant
  module Area
    # Box filters of radius 0, which are each pixel and a share of the two beside it: along rows and then down columns, in one loop over the
    # plane's rows, to the same bits as Boxes does it step by step. Rows wait in a room for those below them, as many for each
    # pass down as it looks at.
    #
    # Source: LLVM language reference, release 15.
    class Beside
      include Wholes

      ROWS = 3 # that a pass down looks at
      LEAST = 8 # rows of a part for each pass, which needs one more on either side

      # @param height [Integer]
      # @param width [Integer]
      # @return [Boolean] a plane of that size is worth it
      def self.worth?(height, width) = width >= Wholes::LANES && Pointwise::Kernel.here? && (height * width >= Pointwise::Kernel::LEAST || Pointwise::Compiler.kept?(LOOP))

      # @param rows [Numo::SFloat] [height, width]; never written to
      # @param share [Float] of the pixels beside each
      # @param passes [Integer] along each axis
      # @return [Numo::SFloat] [height, width]
      def self.call(rows, share, passes)
        height, width = rows.shape
        numbers, parts = [width, passes].pack("q2") + [share, 1.0 / (1 + 2 * share)].pack("d2"), Pointwise::Together.parts(height, width, least: LEAST * passes)
        Parted.run(LOOP, height, Pointwise::Memory.together(rows), Numo::SFloat.new(height, width).allocate, parts, room: [Numo::DFloat, (2 + ROWS * passes) * (width + 2)]) do |part|
          numbers + [part.begin, part.end].pack("q2")
        end
      end

      # @return [Array] see Pointwise::Compiler
      def form = [:beside]

      # run(count, inputs, outputs, constants, tables): count rows; constants are their length and passes (i64), share and weight (double), and the
      # rows that are made from the first to the one before the last (i64); the first table is the room, whose rows have a place more at either
      # end. It returns 1.
      #
      # @param attributes [Hash{String => String}] see Pointwise::Listing
      # @return [String]
      def listing(attributes)
        Pointwise::Listing.function(attributes, <<~BODY.chomp)
          %in = load ptr, ptr %inputs
          %out = load ptr, ptr %outputs
          %room = load ptr, ptr %tables
          #{%w[width times].each_with_index.map { |name, place| constant(name, "i64", place) }.join("\n")}
          #{%w[share weight].each_with_index.map { |name, place| everywhere(name, 2 + place) }.join("\n")}
          #{%w[firstmade endmade].each_with_index.map { |name, place| constant(name, "i64", 4 + place) }.join("\n")}
          %long = add i64 %width, 2
          %other = getelementptr double, ptr %room, i64 %long
          %waiting = getelementptr double, ptr %other, i64 %long
          %early = sub i64 %firstmade, %times
          %top = call i64 @llvm.smax.i64(i64 %early, i64 0)
          %late = add i64 %endmade, %times
          %bottom = call i64 @llvm.umin.i64(i64 %late, i64 %count)
          %last = sub i64 %bottom, 1
          %lastx = sub i64 %width, #{LANES}
          %all2 = mul i64 %times, 2
          %steps = add i64 %bottom, %times
          br label %rows
          rows:
          %y = phi i64 [ %top, %entry ], [ %nexty, %rowdone ]
          %comes = icmp ult i64 %y, %bottom
          br i1 %comes, label %take, label %passes
          #{taken}
          takedone:
          #{edges("%room")}
          br label %passes
          #{pass}
          passesdone:
          %made = sub i64 %y, %times
          %begun = icmp sge i64 %made, %firstmade
          %open = icmp slt i64 %made, %endmade
          %goes = and i1 %begun, %open
          br i1 %goes, label %put, label %rowdone
          #{put}
          rowdone:
          %nexty = add i64 %y, 1
          %morerows = icmp ult i64 %nexty, %steps
          br i1 %morerows, label %rows, label %done
          done:
          ret i32 1
        BODY
      end

      private

      # A row of the plane into the first row of the room.
      def taken
        <<~PART.chomp
          take:
          %t = phi i64 [ 0, %rows ], [ %nextt, %take ]
          #{place("float", "%in", "float", "%y", "%width", "%t")}
          %float = load #{FLOATS}, ptr %floatat, align 4
          #{whole}
          #{within("kept", "%room", "%t", 1)}
          store #{WHOLES} %wanted, ptr %keptat, align 8
          #{next_lanes("t", "%lastx", "take", "takedone")}
        PART
      end

      # Passes along a row that has come, from one of the first two rows of the room to the other and to those that wait; and each
      # down on the row above the last one that it has all neighbours of. The last one makes the first row of the room.
      def pass
        <<~PART.chomp
          passes:
          %q = phi i64 [ 0, %rows ], [ 0, %takedone ], [ %nextq, %passdone ]
          %nextq = add i64 %q, 1
          %along = icmp ult i64 %q, %times
          %odd = and i64 %q, 1
          %isodd = icmp eq i64 %odd, 1
          %source = select i1 %isodd, ptr %other, ptr %room
          %besides = select i1 %isodd, ptr %room, ptr %other
          %down = sub i64 %nextq, %times
          %behind = select i1 %along, i64 0, i64 %down
          %r = sub i64 %y, %behind
          %below0 = icmp sge i64 %r, %top
          %above0 = icmp slt i64 %r, %bottom
          %there = and i1 %below0, %above0
          br i1 %there, label %go, label %passdone
          go:
          %earlier = sub i64 %behind, 1
          #{%w[above own below].zip(["sub i64 %r, 1", "add i64 %r, 0", "add i64 %r, 1"]).map { |name, row| waiting(name, "%earlier", row) }.join("\n")}
          #{waiting("target", "%behind", "add i64 %r, 0")}
          %second = getelementptr double, ptr %source, i64 1
          %third = getelementptr double, ptr %source, i64 2
          #{%w[above own below].map { |name| "%#{name}first = getelementptr double, ptr %#{name}, i64 1" }.join("\n")}
          %one = select i1 %along, ptr %source, ptr %abovefirst
          %two = select i1 %along, ptr %second, ptr %ownfirst
          %three = select i1 %along, ptr %third, ptr %belowfirst
          %isall = icmp eq i64 %behind, %times
          %isfirst = icmp eq i64 %nextq, %times
          %stays = xor i1 %isfirst, 1
          %between = and i1 %along, %stays
          %kept = select i1 %between, ptr %besides, ptr %target
          %into = select i1 %isall, ptr %room, ptr %kept
          br label %columns
          columns:
          %x = phi i64 [ 0, %go ], [ %nextx, %columns ]
          #{%w[before within after].zip(%w[%one %two %three]).map { |name, from| "#{within(name, from, "%x", 0)}\n%#{name} = load #{WHOLES}, ptr %#{name}at, align 8" }.join("\n")}
          #{weighed}
          #{within("result", "%into", "%x", 1)}
          store #{WHOLES} %result, ptr %resultat, align 8
          #{next_lanes("x", "%lastx", "columns", "columnsdone")}
          columnsdone:
          #{edges("%into")}
          br label %passdone
          passdone:
          %morepasses = icmp ult i64 %nextq, %all2
          br i1 %morepasses, label %passes, label %passesdone
        PART
      end

      # The first row of the room into the plane.
      def put
        <<~PART.chomp
          put:
          %p = phi i64 [ 0, %passesdone ], [ %nextp, %put ]
          #{within("final", "%room", "%p", 1)}
          %final = load #{WHOLES}, ptr %finalat, align 8
          #{floats}
          #{place("stored", "%out", "float", "%made", "%width", "%p")}
          store #{FLOATS} %rounded, ptr %storedat, align 4
          #{next_lanes("p", "%lastx", "put", "rowdone")}
        PART
      end

      def place(name, plane, type, row, length, column) = "%#{name}row = mul i64 #{row}, #{length}\n%#{name}place = add i64 %#{name}row, #{column}\n%#{name}at = getelementptr #{type}, ptr #{plane}, i64 %#{name}place"

      def within(name, row, column, off) = "%#{name}column = add i64 #{column}, #{off}\n%#{name}at = getelementptr double, ptr #{row}, i64 %#{name}column"

      # The row of the room where one waits that a pass has made: the first above it for one above, the last below. Where the plane goes on,
      # these are beside those that are made by as many as there are passes.
      def waiting(name, pass, row)
        <<~PART.chomp
          %#{name}wanted = #{row}
          %#{name}low = call i64 @llvm.smax.i64(i64 %#{name}wanted, i64 %top)
          %#{name}held = call i64 @llvm.smin.i64(i64 %#{name}low, i64 %last)
          %#{name}turn = urem i64 %#{name}held, #{ROWS}
          %#{name}block = mul i64 #{pass}, #{ROWS}
          %#{name}number = add i64 %#{name}block, %#{name}turn
          %#{name}off = mul i64 %#{name}number, %long
          %#{name} = getelementptr double, ptr %waiting, i64 %#{name}off
        PART
      end

      # A row goes on as it ends.
      def edges(row)
        name = row.delete("%")
        <<~PART.chomp
          %#{name}firstat = getelementptr double, ptr #{row}, i64 1
          %#{name}first = load double, ptr %#{name}firstat
          store double %#{name}first, ptr #{row}
          %#{name}lastat = getelementptr double, ptr #{row}, i64 %width
          %#{name}last = load double, ptr %#{name}lastat
          %#{name}end = add i64 %width, 1
          %#{name}endat = getelementptr double, ptr #{row}, i64 %#{name}end
          store double %#{name}last, ptr %#{name}endat
        PART
      end

      LOOP = new.freeze
      private_constant :LOOP
    end
  end
end
