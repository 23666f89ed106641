# frozen_string_literal: true

require "tmpdir"

module Mordant
  module Deliver
    # A stretch of one shot that ffmpeg draws through a fine lattice while it decodes, and whose colours that the lattice is
    # not near enough of are computed exactly. Some of the others are computed too in each frame: where one differs
    # by more than half a code, all of its cell are.
    class Mended
      FRAMES = 3 # looked at
      LOOKED_AT = 500_000 # pixels of each, about
      WORTH = 40_000_000 # pixels of a stretch, at least; for fewer a lattice costs more than it saves
      MOST_LEFT = 0.4 # share of the colours, that may be left to the plan
      FIRST_COMPARED = 1 << 18 # pixels of the first frame, at most
      COMPARED = 1 << 12 # of the others
      LARGEST_ERROR = 0.5 # codes of the output

      # What a frame was drawn with. exact: share of its pixels that the lattice was not used for; worst, mean: codes of the output by which
      # others that were compared differ; beyond: see Beyond.
      Note = Struct.new(:exact, :worst, :mean, :beyond, keyword_init: true) do
        # @param parts [Array<Note>] of one frame, equally large
        # @return [Note] of the frame
        def self.of(parts)
          exact, mean, beyond = %i[exact mean beyond].map { |name| parts.sum(&name) / parts.size }
          new(exact: exact.round(5), worst: parts.map(&:worst).max, mean:, beyond: beyond.round(5))
        end

        # @return [Array<Float>] exact, worst, mean
        def differences = [exact, worst.round(3), mean.round(4)]
      end

      # @param source [Programme::Source]
      # @param count [Integer] frames
      # @param width [Integer]
      # @param height [Integer]
      # @return [Boolean] it can be done, and is worth it
      def self.can?(source, count:, width:, height:)
        count * width * height >= WORTH && Bulk.can?(source.plan) && !source.reader.coding.float?
      end

      # @param source [Programme::Source]
      # @param output [Grade::Output]
      # @param bits [Integer] of the output
      # @param first [Integer] source frame
      # @param count [Integer]
      # @param width [Integer] pixels of the frames
      # @param height [Integer]
      # @return [Grade::FineBake] over what occurs in the stretch
      # @raise [MediaError] of a source that cannot be looked at
      def self.bake(source:, output:, bits:, first:, count:, width:, height:)
        numbers = Array.new(FRAMES) { |at| first + at * (count - 1) / (FRAMES - 1) }.uniq
        every = (width * height / LOOKED_AT).clamp(1..) | 1 # odd, so that it takes all columns in turn
        seen = numbers.map { |number| source.reader.frame(number, width:, height:).rgb[true, (0..).step(every)].dup }
        Grade::FineBake.new(plan: source.plan, output:, bits:, seen:)
      end

      # @param reader [Media::Reader]
      # @param bake [Grade::FineBake]
      # @param width [Integer] pixels of the frames
      # @param height [Integer]
      def initialize(reader:, bake:, width:, height:)
        @reader, @bake, @width, @height = reader, bake, width, height
      end

      # @return [Boolean] the lattice does enough of it
      def fits? = @bake.left <= MOST_LEFT

      # @param first [Integer] frame of the source
      # @param count [Integer]
      # @yieldparam frame [Frame] codes of the output
      # @yieldparam number [Integer] from 0
      # @yieldparam note [Note]
      # @raise [MediaError]
      # @raise [SystemCallError] of a full disk
      def each(first:, count:)
        Dir.mktmpdir("mordant") do |folder|
          filters = "split[as][to];[to]#{@bake.filters(File.join(folder, "lattice.raw"))}[drawn];[as][drawn]vstack"
          came, rgb, notes = 0, nil, nil
          @reader.each(first:, count:, width: @width, height: @height, then_by: filters, stacked: 2, pieces:) do |both|
            number, piece = came.divmod(pieces)
            rgb, notes = Numo::SFloat.new(3, size).allocate, [] if piece.zero?
            notes << mend(both.rgb, number, rgb, piece * part)
            both.rgb.free
            came += 1
            yield Frame.new(rgb, width: @width, height: @height, encoding: @bake.encoding), Note.of(notes), number if piece == pieces - 1
          end
        end
      end

      private

      # Of a frame, so that ffmpeg never holds much of it twice.
      def pieces = @pieces ||= PIECES.find { |count| (@height % count).zero? }
      PIECES = [4, 3, 2, 1].freeze

      def size = @width * @height

      # @return [Integer] pixels of a piece
      def part = size / pieces

      # @param both [Numo::UInt16] [3, 2 * part] source codes, and what ffmpeg made of them
      # @param rgb [Numo::SFloat] of the frame, which the result is put into
      # @param at [Integer] first pixel of the piece
      # @return [Note]
      def mend(both, number, rgb, at)
        codes = both[true, 0...part]
        drawn = Numo::SFloat.cast(both[true, part..])
        (drawn.inplace * (1.0 / 65_535)).out_of_place!
        off = compare(codes, drawn, number)
        left = @bake.unsure(codes)
        exact = @bake.exact(codes[true, left].dup)
        3.times { |channel| drawn[channel, left] = exact[channel, true] } unless left.empty?
        rgb[true, at...(at + part)] = drawn
        drawn.free
        Note.new(exact: left.size.fdiv(part), worst: off.max, mean: off.mean, beyond: Beyond.share(exact, size: part))
      end

      # @return [Numo::SFloat] codes by which pixels differ that the lattice is used for, other ones in each frame; where that is too
      #   much it is not used any more
      def compare(codes, drawn, number)
        count = [(number.zero? ? FIRST_COMPARED : COMPARED) / pieces, part].min
        places = (Numo::Int64.new(count).seq * part / count + number * STEP) % part
        places = places[sure(codes[true, places].dup)].dup
        return Numo::SFloat.zeros(1) if places.empty?

        some = codes[true, places].dup
        off = ((@bake.exact(some) - drawn[true, places]).abs * @bake.largest).max(axis: 0)
        @bake.doubt(some[true, (off > LARGEST_ERROR).where].dup)
        off
      end
      STEP = 7919 # pixels, from frame to frame; a prime
      private_constant :PIECES, :STEP

      # @return [Numo::Int32] places of colours that the lattice is used for
      def sure(codes)
        marks = Numo::Bit.ones(codes.shape[1])
        left = @bake.unsure(codes)
        marks[left] = 0 unless left.empty?
        marks.where
      end
    end
  end
end
