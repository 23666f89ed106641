# frozen_string_literal: true

module Mordant
  module Deliver
    # The graded pictures of a cut, in order, in log codes of the working space.
    #
    # One frame at a time is in memory, two in a dissolve, however long the cut.
    class Programme
      # Where a shot's pictures come from and what becomes of them.
      #
      # plan: of its grade; start: the frame of the shot that its first picture is, of one with
      # handles below 0; others: the same with other grades, by variant.
      Source = Struct.new(:reader, :plan, :start, :others, keyword_init: true) do
        def initialize(start: 0, **rest) = super

        # @param frame [Integer] of its pictures
        # @param variant [Object, nil] a key of others
        # @return [Grade::Plan]
        def plan_at(frame, variant = nil) = variant ? others.fetch(variant).plan_at(frame) : plan.at(frame + start)

        # @param frames [Range<Integer>] of its pictures, without its end
        # @return [Integer] frames before and after that those depend on
        def window(frames, variant = nil)
          one = variant ? others.fetch(variant) : self
          one.plan.recipe.window((frames.begin + one.start)...(frames.end + one.start))
        end
      end

      # @param timeline [Cut::Timeline]
      # @param sources [Hash{Object => Source}] by the key of a Timeline::Shot
      # @param width [Integer] of every frame
      # @param height [Integer]
      # @param mixing [Mixing] of its transitions
      def initialize(timeline:, sources:, width:, height:, mixing: Mixing.new)
        @timeline, @sources, @width, @height, @mixing = timeline, sources, width, height, mixing
      end

      # @param first [Integer] record frame
      # @param count [Integer]
      # @yieldparam frame [Frame] graded, log codes of the working space
      # @yieldparam record [Integer] record frame
      # @raise [MediaError] of a source that cannot be decoded
      def each(first:, count:)
        made([nil], first, count) { |(frame), record| yield frame, record }
      end

      # Several grades of the same pictures, decoded once.
      #
      # @param variants [Array<Object, nil>] see Source
      # @yieldparam frames [Array<Frame>] one for each variant; nobody may look at them after the block, as they are large
      # @yieldparam record [Integer]
      # @raise [MediaError]
      def each_of(variants, first:, count:)
        made(variants, first, count) do |frames, record|
          yield frames, record
          frames.each { |frame| frame.rgb.free unless frame.is_a?(Grade::Coming) && frame.coming? }
        end
      end

      private

      def made(variants, first, count)
        @timeline.segments(first, count).each do |segment|
          record = segment.first
          outgoing = segment.outgoing && pictures(segment.outgoing, segment, variants)
          each_picture(segment.incoming, segment, variants) do |frames|
            if outgoing
              layer = @timeline.layers(record).last
              frames = outgoing.next.zip(frames).map { |before, after| @mixing.call(before, after, layer) }
            end
            yield frames, record
            record += 1
          end
        end
      end

      def pictures(shot, segment, variants)
        Enumerator.new { |out| each_picture(shot, segment, variants) { |frames| out << frames } }
      end

      def each_picture(shot, segment, variants)
        source = @sources[shot.key]
        frame = segment.first - shot.record_in
        window = variants.map { |variant| source.window(frame...(frame + segment.length), variant) }.max
        wanted = (segment.first...(segment.first + segment.length)).map { |record| shot.shown_at(record) }
        Media::Surrounded.each(source.reader, wanted:, frames: shot.clip_frames, window:, width: @width, height: @height) do |codes, around|
          yield(variants.map { |variant| source.plan_at(frame, variant).coming(codes, around:) })
          frame += 1
        end
      end
    end
  end
end
