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
        refuse(shot, "shot #{other.name || other.key} to go on with the next frame of the same clip", "another one") unless other.goes_on?(shot)
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
      # @param manner [Manner] how it goes
      # @raise [ParameterError]
      def transition(key, length, wipe: nil, manner: Manner::PLAIN)
        index = index(key)
        replaced(index, shots[index].with(dissolve: length, wipe: length.zero? ? nil : wipe, manner: length.zero? ? Manner::PLAIN : manner))
      end

      # Lets the grades of two shots cross over a stretch that both show, such as a dissolve that is baked in: the
      # second begins with it, and the first goes on under it. An edit that lies in the stretch moves to where it
      # begins; a shot that holds the stretch is split there, and its second part has :new and its key; a stretch that
      # is a shot of its own becomes the beginning of the next one.
      #
      # @param first [Integer] record frame
      # @param count [Integer] frames
      # @return [Edit]
      # @raise [ParameterError] of a stretch of other frames than one clip's in order
      def cross(first, count)
        index = shots.index { |shot| (shot.record_in...shot.record_out).cover?(first) }
        raise ParameterError.new(path: "first", expected: "a frame of the cut", found: first) unless index

        shot, other = shots[index, 2]
        refuse(shot, "a stretch of at least one frame", count) unless count.positive?
        return alone(index) if first == shot.record_in && count == shot.length && on?(index) && on?(index + 1)
        return transition(shot.key, count) if first == shot.record_in && on?(index) && count <= shot.length
        return roll(other.key, first - other.record_in).transition(other.key, count) if first > shot.record_in && first + count >= shot.record_out && on?(index + 1)

        inside = first > shot.record_in && first + count < shot.record_out
        refuse(shot, "a stretch within it, or over an edit at which its clip goes on", "frames #{first - shot.record_in + 1} to #{first - shot.record_in + count} of #{shot.length}") unless inside
        split = split(first)
        split.transition(split.shots[index + 1].key, count)
      end

      # @param record [Integer] frame
      # @return [Object] key of the shot that begins there with a transition
      def crossing(record) = shots.find { |shot| shot.record_in == record && shot.dissolve.positive? }&.key || raise(ParameterError.new(path: "first", expected: "a frame at which a transition begins", found: record))

      # @param manners [Hash{Object => Manner}] how transitions go, by the keys of the shots that they begin
      # @return [Edit]
      def mixed(manners) = Edit.new(shots.map { |shot| manners.key?(shot.key) ? shot.with(manner: manners[shot.key]) : shot })

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

          handle = shot.manner.hold? ? shot.dissolve : shots[index - 1].tail
          most = index.zero? ? 0 : [shot.dissolve, handle, shot.length].min
          if most == shot.dissolve
            shot
          elsif most.zero?
            shot.with(dissolve: 0, wipe: nil, manner: Manner::PLAIN)
          else
            shot.with(dissolve: most)
          end
        end)
      end

      private

      def index(key) = shots.index { |shot| shot.key == key } || raise(ParameterError.new(path: "shot", expected: "a shot of the cut", found: key))

      def replaced(index, *with) = Edit.new(shots[0...index] + with + shots[(index + 1)..])

      # @param index [Integer]
      # @return [Boolean] that shot goes on with the next frame of the one before it
      def on?(index) = index.positive? && (shots[index]&.goes_on?(shots[index - 1]) || false)

      # A shot becomes the beginning of the next one, under which the one before it goes on.
      def alone(index)
        shot, after = shots[index, 2]
        made = after.with(source_in: shot.source_in, phase: shot.phase, length: shot.length + after.length, clock: after.clock - shot.length, dissolve: shot.length, wipe: nil, manner: Manner::PLAIN)
        Edit.new(shots[0...index] + [made] + shots[(index + 2)..])
      end

      # What is left of a shot from a frame of it on.
      def rest(shot, offset)
        source_in, phase = shot.place_after(offset)
        shot.with(key: [:new, shot.key], source_in:, phase:, length: shot.length - offset, dissolve: 0, wipe: nil, manner: Manner::PLAIN, clock: shot.clock + offset)
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
