# frozen_string_literal: true

module Mordant
  module Deliver
    # Whether written frames show the pictures they should: a few of them are read back and
    # compared with what source and grade make of them now, and with their neighbours, so that
    # a frame in another one's place is found.
    class Proof
      WIDTH = 240 # of the pictures that are compared
      MOST = 7 # frames looked at
      NEIGHBOURHOOD = 12 # frames, between which all are made in one go
      # A neighbour this much nearer than the frame itself is what was written.
      NEARER = 0.75
      # Mean distance, as a share of the codes, of what is another picture altogether.
      OTHER = 0.12
      DARKEST = 0.1 # light to which differences of floats are seen in proportion, at least

      # @param sheet [Sheet]
      # @param space [Colour::WorkingSpace]
      # @param count [Integer] frames written
      # @param describe [#call] see Pass
      # @param edges [Array<Integer>] frames at which parts begin
      # @param bind [#call] see Pass
      # @yieldparam width [Integer]
      # @yieldreturn [Programme] of pictures of that width, with the sheet's variant
      def initialize(sheet, space:, count:, describe:, edges: [], bind: ->(view, _) { view }, &programme)
        @sheet, @space, @count, @describe, @edges, @bind, @programme = sheet, space, count, describe, edges, bind, programme
      end

      # @return [Array<Integer>] width and height at which written frames are to be read
      def raster = [small.width, small.height]

      # @return [Array<Integer>] frames to look at: ends, middle, and where parts meet
      def frames
        near = @edges.flat_map { |edge| [edge - 1, edge] }.reject { |frame| frame < 1 }
        [0, @count - 1, @count / 2, *near].select { |frame| (0...@count).cover?(frame) }.uniq.first(MOST).sort
      end

      # @param written [Hash{Integer => Numo::SFloat}] [3, n] values by frame as read back at #raster
      # @return [Hash{Symbol => Array<Integer>}] frames that show an :earlier, :later or :other picture
      #   than they should, and :unproven ones, whose source cannot be read any more
      def faults(written)
        near = written.keys.sort.slice_when { |a, b| b > a + NEIGHBOURHOOD }
        near.each_with_object({}) do |some, found|
          pictures = expected(some.first, some.last)
          some.each { |record| fault(record, pictures, written[record])&.then { |kind| (found[kind] ||= []) << record } }
        rescue MediaError
          (found[:unproven] ||= []).concat(some)
        end
      end

      private

      def fault(record, pictures, written)
        around = pictures.slice(record - 1, record, record + 1)
        right = distance(around.fetch(record), written)
        return :other if right > OTHER

        nearest, near = around.except(record).map { |number, picture| [number, distance(picture, written)] }.min_by(&:last)
        return unless near && near < NEARER * right

        (nearest < record) ? :earlier : :later
      end

      def small = @small ||= @sheet.small(WIDTH)

      # @return [Hash{Integer => Numo::SFloat}] frames and those beside them
      def expected(from, to)
        first = [from - 1, 0].max
        count = [to + 2, @count].min - first
        found = {}
        stage.each_of([@sheet.variant], first:, count:) { |(frame), number| found[number] = picture(frame, number) }
        found
      end

      def stage = @stage ||= @programme.call(WIDTH)

      def picture(frame, record)
        _, tokens = @describe.call(record)
        made = small.burns.draw(Fit.call(Grade::Output.for(@bind.call(small.view, record), @space).run(frame), small), tokens)
        small.format.float? ? made.rgb : made.rgb.clip(0.0, 1.0)
      end

      def distance(one, other)
        off = (one - other).abs
        off /= one.abs + other.abs + DARKEST if small.format.float?
        off.mean
      end
    end
  end
end
