# frozen_string_literal: true

module Mordant
  module Area
    # Means of square blocks as one loop in LLVM's intermediate language, to the bits of what Blocks does in Numo: rows of a block are summed
    # from the first on, and then its columns. A block that is not all within goes on as the picture ends.
    #
    # Source: LLVM language reference, release 15.
    class Means
      include Wholes

      SIZES = %w[width height across edge left top first last].freeze

      class << self
        # @param height [Integer]
        # @param width [Integer]
        # @return [Boolean] a plane of that size is worth it
        def worth?(height, width) = width >= Wholes::LANES && Pointwise::Kernel.here? && (height * width >= Pointwise::Kernel::LEAST || Pointwise::Compiler.kept?(LOOP))

        # @param rows [Numo::SFloat] [height, width]
        # @param edge [Integer] of a block, a power of two
        # @param left [Integer] pixels of the first block across that lie before the plane
        # @param top [Integer] of the first block down
        # @return [Numo::SFloat] [blocks down, blocks across]
        def call(rows, edge, left, top)
          height, width = rows.shape
          down, across = [[top, height], [left, width]].map { |before, size| (before + size + edge - 1) / edge }
          Parted.run(LOOP, down, Pointwise::Memory.together(rows), Numo::SFloat.new(down, across).allocate, Pointwise::Together.parts(down, edge * width), room: [Numo::SFloat, width]) do |part|
            [width, height, across, edge, left, top, part.begin, part.end].pack("q8") + [1.0 / edge**2].pack("d")
          end
        end
      end

      # @return [Array] see Pointwise::Compiler
      def form = [:means]

      # run(count, inputs, outputs, constants, tables): constants are SIZES (i64), of pixels and blocks, and the rows of blocks from the first
      # to the one before the last; then what a sum is multiplied by (double). The first table is room for a row. It returns 1.
      #
      # @param attributes [Hash{String => String}] see Pointwise::Listing
      # @return [String]
      def listing(attributes)
        Pointwise::Listing.function(attributes, <<~BODY.chomp)
          %in = load ptr, ptr %inputs
          %out = load ptr, ptr %outputs
          %room = load ptr, ptr %tables
          #{SIZES.each_with_index.map { |name, place| constant(name, "i64", place) }.join("\n")}
          #{constant("double", "double", SIZES.size)}
          %scale = fptrunc double %double to float
          %lastx = sub i64 %width, #{LANES}
          %lastrow = sub i64 %height, 1
          %lastcolumn = sub i64 %width, 1
          br label %blocks
          blocks:
          %b = phi i64 [ %first, %entry ], [ %nextb, %rowdone ]
          %toprow = mul i64 %b, %edge
          br label %some
          #{down}
          #{across}
          rowdone:
          %nextb = add i64 %b, 1
          %moreb = icmp ult i64 %nextb, %last
          br i1 %moreb, label %blocks, label %done
          done:
          ret i32 1
        BODY
      end

      private

      # Rows of a row of blocks into the room, LANES columns at a time.
      def down
        <<~PART.chomp
          some:
          %x = phi i64 [ 0, %blocks ], [ %nextx, %somedone ]
          br label %rows
          rows:
          %k = phi i64 [ 0, %some ], [ %nextk, %rows ]
          %sum = phi #{FLOATS} [ #{zero}, %some ], [ %more, %rows ]
          #{held("row", "%toprow", "%k", "%top", "%lastrow")}
          %start = mul i64 %row, %width
          %place = add i64 %start, %x
          %address = getelementptr float, ptr %in, i64 %place
          %values = load #{FLOATS}, ptr %address, align 4
          %more = fadd #{FLOATS} %sum, %values
          %nextk = add i64 %k, 1
          %morek = icmp ult i64 %nextk, %edge
          br i1 %morek, label %rows, label %somedone
          somedone:
          %kept = getelementptr float, ptr %room, i64 %x
          store #{FLOATS} %more, ptr %kept, align 4
          #{next_lanes("x", "%lastx", "some", "along")}
        PART
      end

      # Columns of each block of the room.
      def across
        <<~PART.chomp
          along:
          %c = phi i64 [ 0, %somedone ], [ %nextc, %alongdone ]
          %leftcolumn = mul i64 %c, %edge
          br label %columns
          columns:
          %j = phi i64 [ 0, %along ], [ %nextj, %columns ]
          %total = phi float [ -0.0, %along ], [ %further, %columns ]
          #{held("column", "%leftcolumn", "%j", "%left", "%lastcolumn")}
          %spot = getelementptr float, ptr %room, i64 %column
          %value = load float, ptr %spot
          %further = fadd float %total, %value
          %nextj = add i64 %j, 1
          %morej = icmp ult i64 %nextj, %edge
          br i1 %morej, label %columns, label %alongdone
          alongdone:
          %mean = fmul float %further, %scale
          %line = mul i64 %b, %across
          %goal = add i64 %line, %c
          %put = getelementptr float, ptr %out, i64 %goal
          store float %mean, ptr %put
          %nextc = add i64 %c, 1
          %morec = icmp ult i64 %nextc, %across
          br i1 %morec, label %along, label %rowdone
        PART
      end

      # To which a sum begins, as anything added to it stays as it is.
      def zero = "<#{Array.new(LANES, "float -0.0").join(", ")}>"

      # A row or a column of the plane: the first or the last one for those beyond it.
      def held(name, start, step, before, last)
        <<~PART.chomp
          %#{name}on = add i64 #{start}, #{step}
          %#{name}at = sub i64 %#{name}on, #{before}
          %#{name}least = call i64 @llvm.smax.i64(i64 %#{name}at, i64 0)
          %#{name} = call i64 @llvm.smin.i64(i64 %#{name}least, i64 #{last})
        PART
      end

      LOOP = new.freeze
      private_constant :LOOP
    end
  end
end
