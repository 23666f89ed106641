# frozen_string_literal: true

module Mordant
  module Cut
    # The hands of the Assembly room on the shots of a cut: each returns another edit, or refuses with what
    # stands in its way. Shots follow one another without holes; what a hand takes off the front of a shot its clock
    # goes on by, so that what is bound to frames stays with its source frames. Immutable.
    class Edit
      # @return [Array<Timeline::Shot>] one after another from record frame 0
      attr_reader :shots

      # @param shots [Array<Timeline::Shot>] in order
      # @raise [ParameterError] see Timeline
      def initialize(shots)
        record = 0
        @shots = shots.map do |shot|
          placed = (shot.record_in == record) ? shot : shot.with(record_in: record)
          record += shot.length
          placed
        end.freeze
        Timeline.new(@shots)
        freeze
      end

      # @return [Integer] frames
      def length = shots.sum(&:length)

      # A shot becomes two of the same grade at a record frame. The second has :new and the first's key as its key.
      #
      # @raise [ParameterError]
      def split(record)
        index = shots.index { |shot| record > shot.record_in && record < shot.record_out }
        raise ParameterError.new(path: "frame", expected: "a frame within a shot, after its first", found: record) unless index

        shot = shots[index]
        offset = record - shot.record_in
        refuse(shot, "to be split after its transition of #{shot.dissolve} frames", "frame #{offset}") if offset < shot.dissolve
        replaced(index, shot.with(length: offset), rest(shot, offset))
      end

      # Splits a shot at many frames at once.
      #
      # @param key [Object] of the shot
      # @param offsets [Array<Integer>] frames of it that begin others
      # @return [Edit] the others have [:new, key, offset] as keys
      def cut_up(key, offsets)
        index = index(key)
        shot = shots[index]
        marks = [0, *offsets.select { |offset| offset.between?(1, shot.length - 1) }.uniq.sort, shot.length]
        pieces = marks.each_cons(2).map { |from, to| from.zero? ? shot.with(length: to) : rest(shot, from).with(key: [:new, key, from], length: to - from) }
        replaced(index, *pieces)
      end

      # A shot and the next one become one, where the next goes on with the same frames.
      #
      # @raise [ParameterError]
      def join(key)
        index = index(key)
        shot, other = shots[index, 2]
        refuse(shot, "a shot after it", "none") unless other
        goes_on = other.clip == shot.clip && other.speed == shot.speed && other.source_in == shot.place_after(shot.length).first
        refuse(shot, "shot #{other.name || other.key} to go on with the next frame of the same clip", "another one") unless goes_on
        Edit.new(shots[0...index] + [shot.with(length: shot.length + other.length)] + shots[(index + 2)..])
      end

      # Takes frames off a shot's ends, or gives it more of its clip; what follows moves along.
      #
      # @param head [Integer] frames off its front, below 0 on to it
      # @param tail [Integer] frames off its end, below 0 on to it
      # @raise [ParameterError]
      def trim(key, head: 0, tail: 0)
        index = index(key)
        replaced(index, trimmed(shots[index], head, tail))
      end

      # Moves the edit before a shot: the shot before gives what it takes. The cut stays as long as it was.
      #
      # @param by [Integer] record frames, below 0 earlier
      # @raise [ParameterError]
      def roll(key, by)
        index = index(key)
        refuse(shots[0], "a shot before it", "none") if index.zero?
        Edit.new(shots[0...(index - 1)] + [trimmed(shots[index - 1], 0, -by), trimmed(shots[index], by, 0)] + shots[(index + 1)..])
      end

      # A shot shows other frames of its clip at the same place.
      #
      # @param by [Integer] frames of the clip
      # @raise [ParameterError]
      def slip(key, by)
        index = index(key)
        shot = shots[index]
        replaced(index, shot.with(source_in: within(shot, shot.source_in + by), clock: shot.clock + (shot.speed.zero? ? by : (by / shot.speed).round)))
      end

      # @param length [Integer] frames of record, taken or given at its end
      # @raise [ParameterError]
      def resize(key, length) = trim(key, tail: shots[index(key)].length - length)

      # @param speed [Float] frames of the clip for one of record; it keeps its first frame and its length
      # @raise [ParameterError]
      def retime(key, speed)
        index = index(key)
        refuse(shots[index], "a speed from -100 to 100 times", speed) unless speed.between?(-100, 100)
        replaced(index, shots[index].with(speed: speed.to_f, phase: 0.0))
      end

      # Puts a transition at a shot's begin, or takes it away.
      #
      # @param length [Integer] frames, 0 for a cut
      # @param wipe [Integer, nil] number of a pattern; nil: a dissolve
      # @raise [ParameterError]
      def transition(key, length, wipe: nil)
        index = index(key)
        replaced(index, shots[index].with(dissolve: length, wipe: length.zero? ? nil : wipe))
      end

      # @param keys [Array<Object>]
      # @param before [Object, nil] key of the shot that is to follow; nil: none
      # @raise [ParameterError]
      def move(keys, before: nil)
        moved, others = shots.partition { |shot| keys.include?(shot.key) }
        index(keys.find { |key| moved.none? { |shot| shot.key == key } }) if moved.size < keys.size
        at = before ? others.index { |shot| shot.key == before } : others.size
        raise ParameterError.new(path: "before", expected: "a shot that stays", found: before) unless at

        Edit.healed(others.insert(at, *moved))
      end

      # @param shot [Timeline::Shot]
      # @param before [Object, nil] key of the shot that is to follow; nil: none
      # @raise [ParameterError]
      def insert(shot, before: nil)
        at = before ? index(before) : shots.size
        Edit.healed(shots.dup.insert(at, shot))
      end

      # @param keys [Array<Object>]
      # @param black [Timeline::Shot, nil] what stands where they were; nil: what follows moves up
      # @raise [ParameterError]
      def delete(keys, black: nil)
        keys.each { |key| index(key) }
        left = shots.flat_map do |shot|
          next [shot] unless keys.include?(shot.key)

          black ? [black.with(key: [:new, :black, shot.key], length: shot.length)] : []
        end
        raise ParameterError.new(path: "shots", expected: "at least one shot to stay in the cut", found: "all of them") if left.empty?

        Edit.healed(left)
      end

      # A shot shows another clip from one of its frames on.
      #
      # @param clip [Object]
      # @param frames [Integer] of it
      # @param source_in [Integer]
      # @raise [ParameterError]
      def link(key, clip:, frames:, source_in:)
        index = index(key)
        replaced(index, shots[index].with(clip:, clip_frames: frames, source_in:))
      end

      # Transitions that have lost their handles become shorter, or cuts.
      #
      # @param shots [Array<Timeline::Shot>]
      # @return [Edit]
      def self.healed(shots)
        new(shots.each_with_index.map do |shot, index|
          next shot if shot.dissolve.zero?

          most = index.zero? ? 0 : [shot.dissolve, shots[index - 1].tail, shot.length].min
          if most == shot.dissolve
            shot
          else
            shot.with(dissolve: most, wipe: most.zero? ? nil : shot.wipe)
          end
        end)
      end

      private

      def index(key) = shots.index { |shot| shot.key == key } || raise(ParameterError.new(path: "shot", expected: "a shot of the cut", found: key))

      def replaced(index, *with) = Edit.new(shots[0...index] + with + shots[(index + 1)..])

      # What is left of a shot from a frame of it on.
      def rest(shot, offset)
        source_in, phase = shot.place_after(offset)
        shot.with(key: [:new, shot.key], source_in:, phase:, length: shot.length - offset, dissolve: 0, wipe: nil, clock: shot.clock + offset)
      end

      def trimmed(shot, head, tail)
        length = shot.length - head - tail
        refuse(shot, "at least one frame", length) unless length.positive?
        refuse(shot, "#{-head} frames of handle before it", shot.head) if -head > shot.head
        refuse(shot, "#{-tail} frames of handle after it", shot.tail) if -tail > shot.tail
        source_in, phase = shot.place_after(head)
        shot.with(source_in:, phase:, length:, dissolve: [shot.dissolve, length].min, clock: shot.clock + head)
      end

      def within(shot, source_in)
        moved = shot.with(source_in:)
        ends = [moved.source_in, moved.source_at(moved.record_out - 1)].minmax
        refuse(shot, "source frames within the #{shot.clip_frames} of its clip", ends.join(" to ")) unless ends.first >= 0 && ends.last < shot.clip_frames
        source_in
      end

      def refuse(shot, expected, found) = raise(ParameterError.new(path: "shot #{shot.name || shot.key}", expected:, found:))
    end
  end
end
