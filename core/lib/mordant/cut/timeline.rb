# frozen_string_literal: true

module Mordant
  module Cut
    # Shots one after another, and what each record frame is made of.
    #
    # A shot may begin with a dissolve: over its first frames the shot before
    # goes on beyond its end and is mixed out, in log codes of the working space,
    # by equal shares: of n frames, frame k (from 0) has (k + 1) / (n + 1) of the
    # new shot.
    class Timeline
      # A shot in its place. Frames; source_in counts from the clip's first frame,
      # clip_frames is how many the clip has.
      Shot = Struct.new(:key, :source_in, :record_in, :length, :dissolve, :clip_frames, keyword_init: true) do
        def record_out = record_in + length

        # @return [Integer] source frame shown at a record frame
        def source_at(record) = source_in + record - record_in
      end

      # What a record frame takes from a shot.
      Layer = Struct.new(:shot, :source_frame, :share)

      # A stretch of record frames made from the same shots.
      Segment = Struct.new(:first, :length, :outgoing, :incoming)

      attr_reader :shots

      # @param shots [Array<Shot>] in order
      # @raise [ParameterError] of overlaps, missing handles or empty shots
      def initialize(shots)
        @shots = shots.freeze
        shots.each_with_index { |shot, index| check(shot, index.positive? ? shots[index - 1] : nil) }
        freeze
      end

      # @return [Integer] frames
      def length = shots.empty? ? 0 : shots.last.record_out - shots.first.record_in

      # @param record [Integer] frame
      # @return [Array<Layer>] one, or in a dissolve the outgoing and the incoming
      # @raise [ParameterError] of a frame outside the cut
      def layers(record)
        index = shots.bsearch_index { |shot| record < shot.record_out }
        unless index && record >= shots[index].record_in
          raise ParameterError.new(path: "frame", expected: "a frame of the cut, #{length} long", found: record)
        end
        shot = shots[index]
        own = Layer.new(shot, shot.source_at(record), 1.0)
        step = record - shot.record_in
        return [own] unless step < shot.dissolve

        own.share = (step + 1.0) / (shot.dissolve + 1)
        before = shots[index - 1]
        [Layer.new(before, before.source_at(record), 1.0 - own.share), own]
      end

      # @param first [Integer] record frame
      # @param count [Integer]
      # @return [Array<Segment>] that cover those frames in order
      def segments(first, count)
        last = first + count
        shots.each_with_index.flat_map do |shot, index|
          middle = shot.record_in + shot.dissolve
          [[shot.record_in, middle, index.positive? ? shots[index - 1] : nil], [middle, shot.record_out, nil]]
            .map { |from, to, outgoing| [[from, first].max, [to, last].min, outgoing] }
            .select { |from, to, _| to > from }
            .map { |from, to, outgoing| Segment.new(from, to - from, outgoing, shot) }
        end
      end

      private

      def check(shot, before)
        refuse(shot, "at least one frame", shot.length) unless shot.length.positive?
        if shot.source_in.negative? || shot.source_in + shot.length > shot.clip_frames
          refuse(shot, "source frames within the #{shot.clip_frames} of its clip", shot.source_in + shot.length)
        end
        if before && shot.record_in != before.record_out
          refuse(shot, "to begin at #{before.record_out}, where the shot before ends", shot.record_in)
        end
        check_dissolve(shot, before)
      end

      def check_dissolve(shot, before)
        return if shot.dissolve.zero?

        refuse(shot, "a shot before the dissolve", "none") unless before
        refuse(shot, "a dissolve no longer than the shot, #{shot.length}", shot.dissolve) if shot.dissolve > shot.length
        handle = before.clip_frames - before.source_in - before.length
        return if handle >= shot.dissolve

        refuse(shot, "#{shot.dissolve} frames of handle after #{before.key}", handle)
      end

      def refuse(shot, expected, found)
        raise ParameterError.new(path: "shot #{shot.key}", expected:, found:)
      end
    end
  end
end
