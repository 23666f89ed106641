# frozen_string_literal: true

module Mordant
  module Area
    # What Taps does step by step, as one loop over a plane's rows in LLVM's intermediate language, to the same bits. As many rows as a tap
    # reaches wait in a room; one that is made down columns goes on as it ends, and then along itself into the plane.
    #
    # Source: LLVM language reference, release 15.
    class Tapped
      include Wholes

      SIZES = %w[width margin apart taps first last].freeze

      class << self
        # @param height [Integer]
        # @param width [Integer]
        # @return [Boolean] a plane of that size is worth it
        def worth?(height, width) = width >= Wholes::LANES && Pointwise::Kernel.here? && (height * width >= Pointwise::Kernel::LEAST || Pointwise::Compiler.kept?(LOOP))

        # @param rows [Numo::SFloat] [height, width]; never written to
        # @param taps [Array<Float>] of the middle and of pixels ever farther from it
        # @param apart [Integer] pixels from one to the next
        # @return [Numo::SFloat] [height, width]
        def call(rows, taps, apart)
          height, width = rows.shape
          margin = (taps.size - 1) * apart
          parts = Pointwise::Together.parts(height, width, least: 2 * margin + 1)
          Parted.run(LOOP, height, Pointwise::Memory.together(rows), Numo::SFloat.new(height, width).allocate, parts, room: [Numo::SFloat, room(width, margin)], tables: [taps.pack("f*")]) do |part|
            [width, margin, apart, taps.size, part.begin, part.end].pack("q6")
          end
        end

        private

        # @return [Integer] numbers, of rows that end with all lanes
        def room(width, margin) = (2 * margin + 2) * (width + Wholes::LANES) + 2 * margin
      end

      # @return [Array] see Pointwise::Compiler
      def form = [:tapped]

      # run(count, inputs, outputs, constants, tables): count rows; constants are SIZES (i64), of the plane and of the taps, and the rows that
      # are made from the first to the one before the last; tables are the room and the taps. It returns 1.
      #
      # @param attributes [Hash{String => String}] see Pointwise::Listing
      # @return [String]
      def listing(attributes)
        Pointwise::Listing.function(attributes, <<~BODY.chomp)
          %in = load ptr, ptr %inputs
          %out = load ptr, ptr %outputs
          %room = load ptr, ptr %tables
          %attable = getelementptr ptr, ptr %tables, i64 1
          %weights = load ptr, ptr %attable
          #{SIZES.each_with_index.map { |name, place| constant(name, "i64", place) }.join("\n")}
          %whole = add i64 %width, #{LANES - 1}
          %long = and i64 %whole, -#{LANES}
          %lastx = sub i64 %width, #{LANES}
          %lastlong = sub i64 %long, #{LANES}
          %lastrow = sub i64 %count, 1
          %reach = mul i64 %margin, 2
          %waiting = add i64 %reach, 1
          %waitingsize = mul i64 %waiting, %long
          %padded = getelementptr float, ptr %room, i64 %waitingsize
          %line = getelementptr float, ptr %padded, i64 %margin
          %lineend = getelementptr float, ptr %line, i64 %width
          %endsat = getelementptr float, ptr %lineend, i64 -1
          %before = sub i64 %first, %margin
          %made = sub i64 %last, %first
          %steps = add i64 %made, %reach
          br label %rows
          rows:
          %v = phi i64 [ 0, %entry ], [ %nextv, %rowdone ]
          #{taken}
          takedone:
          %full = icmp uge i64 %v, %reach
          br i1 %full, label %middle, label %rowdone
          #{down}
          #{edges}
          #{along}
          rowdone:
          #{onward("v", "%steps", "rows", "done")}
          done:
          ret i32 1
        BODY
      end

      private

      # A row of the plane, or the first or last one for those beyond, into the room: NaN is 0, and what is beyond is held.
      def taken
        <<~PART.chomp
          %wanted = add i64 %before, %v
          %least = call i64 @llvm.smax.i64(i64 %wanted, i64 0)
          %row = call i64 @llvm.smin.i64(i64 %least, i64 %lastrow)
          %rowstart = mul i64 %row, %width
          %source = getelementptr float, ptr %in, i64 %rowstart
          #{waiting("kept", "%v")}
          br label %take
          take:
          %t = phi i64 [ 0, %rows ], [ %nextt, %take ]
          #{loaded("plain", "%source", "%t")}
          %none = fcmp uno #{FLOATS} %plain, %plain
          %number = select #{MASK} %none, #{FLOATS} zeroinitializer, #{FLOATS} %plain
          %toolow = fcmp olt #{FLOATS} %number, #{same(-Boxes::LARGEST)}
          %lowest = select #{MASK} %toolow, #{FLOATS} #{same(-Boxes::LARGEST)}, #{FLOATS} %number
          %toohigh = fcmp ogt #{FLOATS} %lowest, #{same(Boxes::LARGEST)}
          %held = select #{MASK} %toohigh, #{FLOATS} #{same(Boxes::LARGEST)}, #{FLOATS} %lowest
          #{stored("%held", "keptput", "%kept", "%t")}
          #{next_lanes("t", "%lastx", "take", "takedone")}
        PART
      end

      # The line is the row in the middle by its tap, and then with each pair of rows about it by theirs.
      def down
        <<~PART.chomp
          middle:
          %centre = sub i64 %v, %margin
          #{waiting("own", "%centre")}
          #{weight("mid", "0")}
          br label %begin
          begin:
          %b = phi i64 [ 0, %middle ], [ %nextb, %begin ]
          #{loaded("ownrow", "%own", "%b")}
          %ownpart = fmul #{FLOATS} %ownrow, %mid
          #{stored("%ownpart", "ownput", "%line", "%b")}
          #{next_lanes("b", "%lastlong", "begin", "pairs")}
          pairs:
          %k = phi i64 [ 1, %begin ], [ %nextk, %pairdone ]
          %off = mul i64 %k, %apart
          %up = sub i64 %centre, %off
          %low = add i64 %centre, %off
          #{waiting("above", "%up")}
          #{waiting("below", "%low")}
          #{weight("tap", "%k")}
          br label %pair
          pair:
          %p = phi i64 [ 0, %pairs ], [ %nextp, %pair ]
          #{[%w[abovepart %above], %w[belowpart %below], %w[sum %line]].map { |name, from| loaded(name, from, "%p") }.join("\n")}
          #{summed("grown", "%sum", "%abovepart", "%belowpart", "%tap")}
          #{stored("%grown", "grownput", "%line", "%p")}
          #{next_lanes("p", "%lastlong", "pair", "pairdone")}
          pairdone:
          #{onward("k", "%taps", "pairs", "ends")}
        PART
      end

      # The line goes on as it ends.
      def edges
        <<~PART.chomp
          ends:
          %firstone = load float, ptr %line
          %lastone = load float, ptr %endsat
          br label %edge
          edge:
          %e = phi i64 [ 0, %ends ], [ %nexte, %edge ]
          %leftput = getelementptr float, ptr %padded, i64 %e
          %rightput = getelementptr float, ptr %lineend, i64 %e
          store float %firstone, ptr %leftput
          store float %lastone, ptr %rightput
          #{onward("e", "%margin", "edge", "goal")}
        PART
      end

      # From the line into the plane, in the same order.
      def along
        <<~PART.chomp
          goal:
          %goalrow = sub i64 %wanted, %margin
          %outstart = mul i64 %goalrow, %width
          %outrow = getelementptr float, ptr %out, i64 %outstart
          br label %some
          some:
          %x = phi i64 [ 0, %goal ], [ %nextx, %somedone ]
          #{loaded("here", "%line", "%x")}
          %herepart = fmul #{FLOATS} %here, %mid
          br label %besides
          besides:
          %j = phi i64 [ 1, %some ], [ %nextj, %besides ]
          %total = phi #{FLOATS} [ %herepart, %some ], [ %more, %besides ]
          %way = mul i64 %j, %apart
          %leftx = sub i64 %x, %way
          %rightx = add i64 %x, %way
          #{loaded("left", "%line", "%leftx")}
          #{loaded("right", "%line", "%rightx")}
          #{weight("side", "%j")}
          #{summed("more", "%total", "%left", "%right", "%side")}
          #{onward("j", "%taps", "besides", "somedone")}
          somedone:
          #{stored("%more", "output", "%outrow", "%x")}
          #{next_lanes("x", "%lastx", "some", "rowdone")}
        PART
      end

      # The place in the room of a row, counted from the first that was taken.
      def waiting(name, row) = "%#{name}turn = urem i64 #{row}, %waiting\n%#{name}off = mul i64 %#{name}turn, %long\n%#{name} = getelementptr float, ptr %room, i64 %#{name}off"

      # A tap in every lane.
      def weight(name, place) = "%#{name}at = getelementptr float, ptr %weights, i64 #{place}\n%#{name}one = load float, ptr %#{name}at\n%#{name}lane = insertelement #{FLOATS} poison, float %#{name}one, i32 0\n%#{name} = shufflevector #{FLOATS} %#{name}lane, #{FLOATS} poison, <#{LANES} x i32> zeroinitializer"

      def summed(name, sum, one, other, tap) = "%#{name}both = fadd #{FLOATS} #{one}, #{other}\n%#{name}part = fmul #{FLOATS} %#{name}both, #{tap}\n%#{name} = fadd #{FLOATS} #{sum}, %#{name}part"

      def loaded(name, from, place) = "%#{name}from = getelementptr float, ptr #{from}, i64 #{place}\n%#{name} = load #{FLOATS}, ptr %#{name}from, align 4"

      def stored(value, name, into, place) = "%#{name} = getelementptr float, ptr #{into}, i64 #{place}\nstore #{FLOATS} #{value}, ptr %#{name}, align 4"

      def same(number) = "<#{Array.new(LANES, "float #{number}").join(", ")}>"

      LOOP = new.freeze
      private_constant :LOOP
    end
  end
end
