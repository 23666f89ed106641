# frozen_string_literal: true

module Mordant
  module Cut
    # Shots one after another, and what each record frame is made of.
    #
    # A shot may begin with a transition: over its first frames the shot before goes on beyond its end.
    # A dissolve mixes it out, a wipe uncovers the new shot by the same shares; see Manner, Wipe and
    # Deliver::Mixing. Where the shot goes on with the next frame of the same clip, both grade the same frames: a
    # crossover of two grades over a transition that is in the picture already. Immutable.
    class Timeline
      # A shot in its place. Frames; source_in: frame of the clip that its first one shows; clip: whatever
      # tells clips apart; clip_frames: how many the clip has; speed: frames of the clip for one of record, below
      # 0 backwards, 0 stands still; phase: 0...1, how far the first one is beyond source_in; dissolve: length of the
      # transition at its begin; wipe: number of its pattern, nil of a dissolve; manner: how it goes, a Manner or its document; clock: what its first frame is for all
      # that is bound to frames, such as keys; name: for messages.
      Shot = Struct.new(:key, :name, :clip, :source_in, :record_in, :length, :dissolve, :clip_frames, :speed, :phase, :wipe, :manner, :clock, keyword_init: true) do
        def initialize(clip: nil, record_in: 0, dissolve: 0, speed: 1.0, phase: 0.0, manner: nil, clock: 0, **rest) = super(clip:, record_in:, dissolve:, speed:, phase:, clock:, manner: Manner.of(manner), **rest)

        def record_out = record_in + length

        # @return [Integer] source frame shown at a record frame
        def source_at(record) = source_in + gone(record - record_in)

        # @return [Integer] the same, and of the last one where the clip has no more; see Manner#hold?
        def shown_at(record) = source_at(record).clamp(0, clip_frames - 1)

        # @param before [Shot] the one before it
        # @return [Boolean] it goes on with the next frame of the same clip, at the same speed
        def goes_on?(before) = before.clip == clip && before.speed == speed && before.place_after(before.length).first == source_in

        # @return [Boolean] each frame of the clip once, in order
        def plain? = speed == 1.0

        # @param frames [Integer] of record
        # @return [Array(Integer, Float)] source frame and phase so many frames on
        def place_after(frames)
          whole = phase + frames * speed + NEARLY
          [source_in + whole.floor, plain? ? phase : (whole - whole.floor - NEARLY).clamp(0.0, 1.0 - NEARLY)]
        end

        # @return [Integer] frames of record that the clip holds before its first frame, at its speed
        def head = room(-1)

        # @return [Integer] the same after its last one
        def tail = room(1)

        def with(**other) = self.class.new(**to_h, **other)

        private

        def gone(frames) = plain? ? frames : (phase + frames * speed + Timeline::NEARLY).floor

        # A still frame has room without end.
        def room(way)
          return Timeline::ENDLESS if speed.zero?
          return (way.negative? ? source_in : clip_frames - source_in - length).clamp(0, nil) if plain?

          from = way.negative? ? record_in : record_out - 1
          low, high = 0, clip_frames + Timeline::ENDLESS
          while low < high
            middle = (low + high + 1) / 2
            (0...clip_frames).cover?(source_at(from + way * middle)) ? low = middle : high = middle - 1
          end
          low
        end
      end

      NEARLY = 1e-6 # frames, so that a speed like 1/3 arrives where it should
      ENDLESS = 1_000_000 # frames

      # What a record frame takes from a shot. wipe: the Wipe by which the share is laid out, or nil.
      Layer = Struct.new(:shot, :source_frame, :share, :wipe)

      # A stretch of record frames made from the same shots.
      Segment = Struct.new(:first, :length, :outgoing, :incoming)

      attr_reader :shots

      # @param shots [Array<Shot>] in order
      # @raise [ParameterError] of overlaps, missing handles or empty shots
      def initialize(shots)
        @shots = shots.freeze
        shots.each_with_index { |shot, index| check(shot, index.positive? ? shots[index - 1] : nil) }
        @places = shots.each_with_index.to_h { |shot, index| [shot.key, index] }.freeze
        freeze
      end

      # @return [Integer] frames
      def length = shots.empty? ? 0 : shots.last.record_out - shots.first.record_in

      # @param record [Integer] frame
      # @return [Array<Layer>] one, or in a transition the outgoing and the incoming
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

        own.share = shot.manner.share(step, shot.dissolve)
        own.wipe = shot.wipe && Wipe.new(shot.wipe, softness: shot.manner.softness, backward: shot.manner.backward?)
        before = shots[index - 1]
        [Layer.new(before, before.shown_at(record), 1.0 - own.share, own.wipe), own]
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

      # @param key [Object] of a shot
      # @return [Boolean] its transition is between two grades of the same frames
      def crossover?(key)
        index = @places[key] or return false
        shot, before = shots[index], shots[index - 1]
        index.positive? && shot.dissolve.positive? && shot.goes_on?(before)
      end

      private

      def check(shot, before)
        refuse(shot, "at least one frame", shot.length) unless shot.length.positive?
        outside = [shot.source_in, shot.source_at(shot.record_out - 1)].find { |frame| !(0...shot.clip_frames).cover?(frame) }
        refuse(shot, "source frames within the #{shot.clip_frames} of its clip", outside) if outside
        if before && shot.record_in != before.record_out
          refuse(shot, "to begin at #{before.record_out}, where the shot before ends", shot.record_in)
        end
        check_transition(shot, before)
      end

      def check_transition(shot, before)
        return if shot.dissolve.zero?

        refuse(shot, "a shot before the transition", "none") unless before
        refuse(shot, "a transition no longer than the shot, #{shot.length} frames", shot.dissolve) unless shot.dissolve.between?(1, shot.length)
        refuse(shot, "a pattern of a wipe, #{Wipe::PATTERNS.keys.join(", ")}", shot.wipe) unless shot.wipe.nil? || Wipe::PATTERNS.key?(shot.wipe)
        handle = before.tail
        return if handle >= shot.dissolve || shot.manner.hold?

        refuse(shot, "#{shot.dissolve} frames of handle after shot #{before.name || before.key}", handle)
      end

      def refuse(shot, expected, found)
        raise ParameterError.new(path: "shot #{shot.name || shot.key}", expected:, found:)
      end
    end
  end
end
