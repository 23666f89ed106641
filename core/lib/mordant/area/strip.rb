# frozen_string_literal: true

module Mordant
  module Area
    # The loop of Running in LLVM's intermediate language: LANES lines at a time, columns or rows, are taken from a plane, as whole
    # numbers, go through all passes from one half of a room to the other, and are put into another plane.
    #
    # Source: LLVM language reference, release 15.
    class Strip
      include Wholes

      # @return [Symbol] :floats, or :wholes in doubles
      attr_reader :from, :to
      # @return [Symbol] :columns, or :rows
      attr_reader :lines

      # @param from [Symbol]
      # @param to [Symbol]
      # @param lines [Symbol]
      def initialize(from, to, lines)
        @from, @to, @lines = from, to, lines
        freeze
      end

      # @return [Array] see Pointwise::Compiler
      def form = [:strip, from, to, lines]

      # @param length [Integer] of a line
      # @return [Integer] bytes that it works in
      def room(length) = 2 * length * LANES * 8

      # run(count, inputs, outputs, constants, tables): count lines; constants are their length, radius and passes (i64), share of
      # what lies beyond the radius and weight of all (double), the first line that is done and the one after the last, LANES or more (i64); the first
      # table is the room. It returns 1.
      #
      # @param attributes [Hash{String => String}] see Pointwise::Listing
      # @return [String]
      def listing(attributes)
        Pointwise::Listing.function(attributes, <<~BODY.chomp)
          %in = load ptr, ptr %inputs
          %out = load ptr, ptr %outputs
          %room = load ptr, ptr %tables
          #{%w[length radius times].each_with_index.map { |name, place| constant(name, "i64", place) }.join("\n")}
          #{%w[share weight].each_with_index.map { |name, place| everywhere(name, 3 + place) }.join("\n")}
          %last = sub i64 %length, 1
          %beyond = add i64 %radius, 1
          %lowest = sub i64 0, %radius
          %half = mul i64 %length, #{LANES}
          #{%w[firstline endline].each_with_index.map { |name, place| constant(name, "i64", 5 + place) }.join("\n")}
          %lastline = sub i64 %endline, #{LANES}
          br label %lines
          lines:
          %x = phi i64 [ %firstline, %entry ], [ %nextx, %linesdone ]
          br label %take
          #{taken}
          passes:
          %pass = phi i64 [ 0, %take ], [ %nextpass, %passdone ]
          %nextpass = add i64 %pass, 1
          #{half("source", "%pass")}
          #{half("made", "%nextpass")}
          br label %first
          #{passed}
          passdone:
          %morepasses = icmp slt i64 %nextpass, %times
          br i1 %morepasses, label %passes, label %put
          #{put}
          linesdone:
          #{next_lanes("x", "%lastline", "lines", "done")}
          done:
          ret i32 1
        BODY
      end

      private

      # From the plane into the first half of the room.
      def taken
        <<~PART.chomp
          take:
          %t = phi i64 [ 0, %lines ], [ %nextt, %take ]
          #{loaded((from == :floats) ? "float" : "wanted", "%in", "%t", from)}
          #{whole if from == :floats}
          #{inner("kept", "%room", "%t")}
          store #{WHOLES} %wanted, ptr %keptat, align 8
          #{onward("t", "%length", "take", "passes")}
        PART
      end

      # As Boxes#boxed: the sum of the first row, and of each the sum of the one before with what comes and without what goes.
      def passed
        <<~PART.chomp
          first:
          %k = phi i64 [ %lowest, %passes ], [ %nextk, %first ]
          %begun = phi #{WHOLES} [ zeroinitializer, %passes ], [ %sum, %first ]
          #{row("own", "%k")}
          %sum = fadd #{WHOLES} %begun, %own
          %nextk = add i64 %k, 1
          %moreofit = icmp sle i64 %nextk, %radius
          br i1 %moreofit, label %first, label %rows
          rows:
          %y = phi i64 [ 0, %first ], [ %nexty, %rows ]
          %within = phi #{WHOLES} [ %sum, %first ], [ %slid, %rows ]
          %above = sub i64 %y, %beyond
          %below = add i64 %y, %beyond
          %going = sub i64 %y, %radius
          #{row("before", "%above")}
          #{row("after", "%below")}
          #{row("gone", "%going")}
          #{weighed}
          #{inner("into", "%made", "%y")}
          store #{WHOLES} %result, ptr %intoat, align 8
          %grown = fadd #{WHOLES} %within, %after
          %slid = fsub #{WHOLES} %grown, %gone
          #{onward("y", "%length", "rows", "passdone")}
        PART
      end

      # From the half of the room that was written last into the plane.
      def put
        <<~PART.chomp
          put:
          %p = phi i64 [ 0, %passdone ], [ %nextp, %put ]
          #{inner("final", "%made", "%p")}
          %final = load #{WHOLES}, ptr %finalat, align 8
          #{floats if to == :floats}
          #{stored((to == :floats) ? "%rounded" : "%final", "%out", "%p", to)}
          #{onward("p", "%length", "put", "linesdone")}
        PART
      end

      # One half of the room and the other by turns.
      def half(name, pass) = "%#{name}odd = and i64 #{pass}, 1\n%#{name}off = mul i64 %#{name}odd, %half\n%#{name} = getelementptr double, ptr %room, i64 %#{name}off"

      # Numbers of a place of all lines in a plane: columns have them side by side, rows each in its own.
      def loaded(name, plane, place, kind)
        number, numbers = types(kind)
        return "#{beside(name, plane, place, number)}\n%#{name} = load #{numbers}, ptr %#{name}at, align 4\n#{coming(name, number, 0)}" if lines == :columns

        each_row(name, plane, place, number) do |at, lane|
          "%#{at}one = load #{number}, ptr %#{at}\n%#{name}#{lane} = insertelement #{numbers} #{lane.zero? ? "poison" : "%#{name}#{lane - 1}"}, #{number} %#{at}one, i32 #{lane}"
        end.sub("%#{name}#{LANES - 1} =", "%#{name} =")
      end

      def stored(value, plane, place, kind)
        number, numbers = types(kind)
        return "#{beside("stored", plane, place, number)}\nstore #{numbers} #{value}, ptr %storedat, align 4\n#{coming("stored", number, 1)}" if lines == :columns

        each_row("stored", plane, place, number) { |at, lane| "%#{at}one = extractelement #{numbers} #{value}, i32 #{lane}\nstore #{number} %#{at}one, ptr %#{at}" }
      end

      def types(kind) = (kind == :floats) ? ["float", FLOATS] : ["double", WHOLES]

      def beside(name, plane, place, number) = "%#{name}row = mul i64 #{place}, %count\n%#{name}place = add i64 %#{name}row, %x\n%#{name}at = getelementptr #{number}, ptr #{plane}, i64 %#{name}place"

      # What columns have some places on is brought near the processor, which does not see by itself that it comes.
      def coming(name, number, written)
        size = (number == "float") ? 4 : 8
        far = "%#{name}far = mul i64 %count, #{AHEAD}\n%#{name}next = getelementptr #{number}, ptr %#{name}at, i64 %#{name}far"
        lines = (0...(LANES * size)).step(64).map { |at| "%#{name}line#{at} = getelementptr i8, ptr %#{name}next, i64 #{at}\ncall void @llvm.prefetch.p0(ptr %#{name}line#{at}, i32 #{written}, i32 3, i32 1)" }
        [far, *lines].join("\n")
      end
      AHEAD = 12

      def each_row(name, plane, place, number)
        Array.new(LANES) do |lane|
          at = "#{name}at#{lane}"
          "%#{at}line = add i64 %x, #{lane}\n%#{at}row = mul i64 %#{at}line, %length\n%#{at}place = add i64 %#{at}row, #{place}\n%#{at} = getelementptr #{number}, ptr #{plane}, i64 %#{at}place\n#{yield(at, lane)}"
        end.join("\n")
      end

      # The address of a row of the strip in the room.
      def inner(name, half, row) = "%#{name}row = mul i64 #{row}, #{LANES}\n%#{name}at = getelementptr double, ptr #{half}, i64 %#{name}row"

      # Numbers of a row, of the first or the last one beyond them.
      def row(name, number)
        <<~ROW.chomp
          %#{name}above = call i64 @llvm.smax.i64(i64 #{number}, i64 0)
          %#{name}held = call i64 @llvm.smin.i64(i64 %#{name}above, i64 %last)
          #{inner(name, "%source", "%#{name}held")}
          %#{name} = load #{WHOLES}, ptr %#{name}at, align 8
        ROW
      end
    end
  end
end
