# frozen_string_literal: true

module Mordant
  module Media
    # Three planes of codes as rows of a PNG of 8 bits, in blocks of a zlib stream that are stored as they are, and the sum of them: what
    # PlainPng does in Ruby, as one loop in LLVM's intermediate language, to the same bytes.
    #
    # Sources: ISO/IEC 15948, 7.2 and 9.2; RFC 1950, 9 (Adler-32); RFC 1951, 3.2.4; LLVM language reference, release 15.
    class PngRows
      LANES = 16
      FLOATS, WHOLES, LONGS, MASK, BYTES = %w[float i32 i64 i1 i8].map { |type| "<#{LANES} x #{type}>" }
      WIDEST = 8192 # pixels, for which sums of a row fit in 32 bits
      ALL = 255.0
      SUMS = 2 # of Adler-32, each of 64 bits

      # @param width [Integer]
      # @param height [Integer]
      # @return [Boolean] a picture of that size is worth it
      def self.worth?(width, height) = width.between?(LANES, WIDEST) && Pointwise::Kernel.here? && (width * height >= Pointwise::Kernel::LEAST || Pointwise::Compiler.kept?(LOOP))

      # @param frame [Frame] codes; held to 0.0..1.0, NaN becomes 0
      # @param rows [Integer] of a block
      # @return [Array(String, Integer)] blocks, and Adler-32 of what is in them
      def self.call(frame, rows)
        long = 1 + PlainPng::CHANNELS * frame.width
        size = long * frame.height + (frame.height.to_f / rows).ceil * PlainPng::HEAD
        blocks, sums = "\0".b * size, [1, 0].pack("q*")
        planes = Pointwise.rows(frame.rgb).map { |plane| Pointwise::Memory.together(plane) }
        inputs, outputs = [planes, [blocks, sums]].map { |list| list.map { |one| Pointwise::Memory.address(one) }.pack("J*") }
        Pointwise::Compiler.function(LOOP).call(frame.height, inputs, outputs, [frame.width, rows].pack("q2"), nil)
        [blocks, sums.unpack("q*").then { |plain, weighed| weighed << 16 | plain }]
      end

      # @return [Array] see Pointwise::Compiler
      def form = [:png_rows]

      # run(count, inputs, outputs, constants, tables): count rows; three planes come in, blocks and two sums (i64) are made, which hold those
      # of what is before; constants are pixels of a row and rows of a block (i64). It returns 1.
      #
      # @param attributes [Hash{String => String}] see Pointwise::Listing
      # @return [String]
      def listing(attributes)
        Pointwise::Listing.function(attributes, <<~BODY.chomp)
          #{%w[red green blue].each_with_index.map { |name, number| pointer(name, "inputs", number) }.join("\n")}
          #{pointer("blocks", "outputs", 0)}
          #{pointer("sums", "outputs", 1)}
          %width = load i64, ptr %constants
          %atrows = getelementptr i64, ptr %constants, i64 1
          %rows = load i64, ptr %atrows
          %atweighed = getelementptr i64, ptr %sums, i64 1
          %plain0 = load i64, ptr %sums
          %weighed0 = load i64, ptr %atweighed
          %bytes = mul i64 %width, 3
          %long = add i64 %bytes, 1
          %lastx = sub i64 %width, #{LANES}
          br label %row
          row:
          %y = phi i64 [ 0, %entry ], [ %nexty, %rowdone ]
          %to = phi ptr [ %blocks, %entry ], [ %nextto, %rowdone ]
          %plain = phi i64 [ %plain0, %entry ], [ %nextplain, %rowdone ]
          %weighed = phi i64 [ %weighed0, %entry ], [ %nextweighed, %rowdone ]
          %first = mul i64 %y, %width
          %turn = urem i64 %y, %rows
          %begins = icmp eq i64 %turn, 0
          br i1 %begins, label %head, label %filter
          #{head}
          filter:
          %line = phi ptr [ %to, %row ], [ %inner, %head ]
          store i8 0, ptr %line
          %codes = getelementptr i8, ptr %line, i64 1
          br label %pixels
          #{pixels}
          rowdone:
          #{sums}
          %nexty = add i64 %y, 1
          %nextto = getelementptr i8, ptr %line, i64 %long
          %morerows = icmp ult i64 %nexty, %count
          br i1 %morerows, label %row, label %done
          done:
          store i64 %nextplain, ptr %sums
          store i64 %nextweighed, ptr %atweighed
          ret i32 1
        BODY
      end

      private

      def pointer(name, list, number) = "%at#{name} = getelementptr ptr, ptr %#{list}, i64 #{number}\n%#{name} = load ptr, ptr %at#{name}"

      # Of a block: that it is stored and not the last one, and its length twice, once with all bits turned over.
      def head
        <<~PART.chomp
          head:
          %left = sub i64 %count, %y
          %here = call i64 @llvm.umin.i64(i64 %left, i64 %rows)
          %size = mul i64 %here, %long
          %length = trunc i64 %size to i16
          %turned = xor i16 %length, -1
          %atlength = getelementptr i8, ptr %to, i64 1
          %atturned = getelementptr i8, ptr %to, i64 3
          store i8 0, ptr %to
          store i16 %length, ptr %atlength, align 1
          store i16 %turned, ptr %atturned, align 1
          %inner = getelementptr i8, ptr %to, i64 #{PlainPng::HEAD}
          br label %filter
        PART
      end

      # LANES pixels of a row, the last of which end where it ends; those that have been summed before count no more. A pixel's bytes are
      # weighed by how many come with and after them.
      def pixels
        <<~PART.chomp
          pixels:
          %x = phi i64 [ 0, %filter ], [ %nextx, %pixels ]
          %fresh = phi i64 [ 0, %filter ], [ %after, %pixels ]
          %whole = phi #{WHOLES} [ zeroinitializer, %filter ], [ %nextwhole, %pixels ]
          %sides = phi #{WHOLES} [ zeroinitializer, %filter ], [ %nextsides, %pixels ]
          %wide = phi #{WHOLES} [ zeroinitializer, %filter ], [ %nextwide, %pixels ]
          %where = add i64 %first, %x
          #{%w[red green blue].map { |name| code(name) }.join("\n")}
          %pair = shufflevector #{BYTES} %redbyte, #{BYTES} %greenbyte, #{order((0...(2 * LANES)).to_a)}
          %third = shufflevector #{BYTES} %bluebyte, #{BYTES} poison, #{order((0...LANES).to_a + Array.new(LANES, "undef"))}
          %woven = shufflevector <#{2 * LANES} x i8> %pair, <#{2 * LANES} x i8> %third, #{order((0...LANES).flat_map { |lane| [lane, LANES + lane, 2 * LANES + lane] })}
          %off = mul i64 %x, 3
          %into = getelementptr i8, ptr %codes, i64 %off
          store <#{3 * LANES} x i8> %woven, ptr %into, align 1
          %known = sub i64 %fresh, %x
          %less = trunc i64 %known to i32
          #{every("below", "%less")}
          %counts = icmp uge #{WHOLES} #{order((0...LANES).to_a, typed: false)}, %below
          %two = add #{WHOLES} %redcode, %greencode
          %three = add #{WHOLES} %two, %bluecode
          %all = select #{MASK} %counts, #{WHOLES} %three, #{WHOLES} zeroinitializer
          %twice = add #{WHOLES} %bluecode, %bluecode
          %later = add #{WHOLES} %greencode, %twice
          %side = select #{MASK} %counts, #{WHOLES} %later, #{WHOLES} zeroinitializer
          %nextwhole = add #{WHOLES} %whole, %all
          %nextsides = add #{WHOLES} %sides, %side
          %stands = sub i64 %width, %x
          %share = trunc i64 %stands to i32
          #{every("ahead", "%share")}
          %weight = sub #{WHOLES} %ahead, #{order((0...LANES).to_a, typed: false)}
          %heavy = mul #{WHOLES} %all, %weight
          %nextwide = add #{WHOLES} %wide, %heavy
          %after = add i64 %x, #{LANES}
          %nextx = call i64 @llvm.umin.i64(i64 %after, i64 %lastx)
          %morex = icmp ult i64 %x, %lastx
          br i1 %morex, label %pixels, label %rowdone
        PART
      end

      # As Integers.placed, cut off; NaN is not above 0.
      def code(name)
        <<~PART.chomp
          %#{name}at = getelementptr float, ptr %#{name}, i64 %where
          %#{name}float = load #{FLOATS}, ptr %#{name}at, align 4
          %#{name}scaled = fmul #{FLOATS} %#{name}float, #{same(ALL)}
          %#{name}raised = fadd #{FLOATS} %#{name}scaled, #{same(Integers::HALF)}
          %#{name}above = fcmp ogt #{FLOATS} %#{name}raised, zeroinitializer
          %#{name}least = select #{MASK} %#{name}above, #{FLOATS} %#{name}raised, #{FLOATS} zeroinitializer
          %#{name}below = fcmp olt #{FLOATS} %#{name}least, #{same(ALL)}
          %#{name}most = select #{MASK} %#{name}below, #{FLOATS} %#{name}least, #{FLOATS} #{same(ALL)}
          %#{name}code = fptosi #{FLOATS} %#{name}most to #{WHOLES}
          %#{name}byte = trunc #{WHOLES} %#{name}code to #{BYTES}
        PART
      end

      # Adler-32 of what is before with a row: its bytes are counted once, and once more by each that comes with or after them.
      def sums
        <<~PART.chomp
          %all32 = call i32 @llvm.vector.reduce.add.v#{LANES}i32(#{WHOLES} %nextwhole)
          %sides32 = call i32 @llvm.vector.reduce.add.v#{LANES}i32(#{WHOLES} %nextsides)
          %longer = zext #{WHOLES} %nextwide to #{LONGS}
          %wide64 = call i64 @llvm.vector.reduce.add.v#{LANES}i64(#{LONGS} %longer)
          %row64 = zext i32 %all32 to i64
          %sides64 = zext i32 %sides32 to i64
          %grown = add i64 %plain, %row64
          %nextplain = urem i64 %grown, #{ADLER}
          %before = mul i64 %plain, %long
          %threes = mul i64 %wide64, 3
          %within = sub i64 %threes, %sides64
          %some = add i64 %weighed, %before
          %heavier = add i64 %some, %within
          %nextweighed = urem i64 %heavier, #{ADLER}
        PART
      end
      ADLER = 65_521 # the largest prime below 2^16

      def order(numbers, typed: true) = "#{"<#{numbers.size} x i32> " if typed}<#{numbers.map { |number| "i32 #{number}" }.join(", ")}>"

      def same(number) = "<#{Array.new(LANES, "float #{number}").join(", ")}>"

      def every(name, value) = "%#{name}lane = insertelement #{WHOLES} poison, i32 #{value}, i32 0\n%#{name} = shufflevector #{WHOLES} %#{name}lane, #{WHOLES} poison, #{WHOLES} zeroinitializer"

      LOOP = new.freeze
      private_constant :LOOP
    end
  end
end
