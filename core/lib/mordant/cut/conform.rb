# frozen_string_literal: true

module Mordant
  module Cut
    # The shots that a list asks for, in their places: black where it leaves holes. What it cannot hold to is told.
    #
    # A transition for which the shot before has too few frames beyond its end is made shorter, holds its last frame, or
    # is left out, for a cut.
    class Conform
      HANDLES = %w[shorten hold leave].freeze

      # What an event shows. clip: whatever tells clips apart; frames: of it; first: its frame at the event's source in;
      # rule: by which it was found, nil of what is missing.
      Source = Struct.new(:clip, :frames, :first, :rule, keyword_init: true)

      # A shot, and the event it is of; nil of black in a hole.
      Placed = Struct.new(:shot, :event, :rule)

      # @return [Array<Placed>]
      attr_reader :placed
      # @return [Array<String>]
      attr_reader :notes
      # @return [Integer] transitions that want more handle than there is
      attr_reader :short

      # @param list [List]
      # @param black [Source] what stands in holes
      # @param handles [String] one of HANDLES, for transitions that want more of it than there is
      # @yieldparam event [List::Event] with a picture
      # @yieldreturn [Source]
      # @raise [ParameterError] of a list without a shot
      def initialize(list, black:, handles: "shorten", &source)
        raise ParameterError.new(path: "handles", expected: HANDLES.join(", "), found: handles) unless HANDLES.include?(handles)

        @black, @source, @handles, @notes, @placed, @short = black, source, handles, [], [], 0
        record = list.events.first&.record_in&.frames
        @first = record
        list.events.each { |event| place(event) }
        raise ParameterError.new(path: "list", expected: "events with picture", found: "none") if @placed.empty?

        @placed = healed
      end

      # @return [Array<Timeline::Shot>]
      def shots = placed.map(&:shot)

      private

      def place(event)
        return notes << "event #{event.number}: keyed over the picture, left out" if event.transition.kind == "key" && overlaps?(event)

        at = event.record_in.frames - @first
        hole(at - length) if at > length
        opening(event) { |taken| put(event, taken) }
      end

      def length = @placed.sum { |one| one.shot.length }

      def overlaps?(event) = event.record_in.frames - @first < length

      def hole(frames)
        @placed << Placed.new(Timeline::Shot.new(key: [:event, @placed.size], name: "black", clip: @black.clip, clip_frames: @black.frames, source_in: 0, length: frames), nil, nil)
      end

      # A fade out of black begins with a frame of black where no black stands before it.
      def opening(event)
        change = event.transition
        before = @placed.last&.shot
        from_black = change.length.positive? && (before.nil? || (change.black && before.clip != @black.clip))
        return yield 0 unless from_black && event.length > 1

        hole(1)
        yield 1
      end

      # @param taken [Integer] frames off its front
      def put(event, taken)
        source = event.black? ? @black : @source.call(event)
        shot = Timeline::Shot.new(key: [:event, @placed.size], name: event.clip || event.reel, clip: source.clip, clip_frames: source.frames, source_in: event.black? ? 0 : first(event, source),
          length: event.length, speed: event.black? ? 1.0 : event.speed.to_f, dissolve: 0)
        source_in, phase = shot.place_after(taken)
        change = event.transition
        shot = within(shot.with(source_in:, phase:, length: event.length - taken), event)
        dissolve = (change.length - taken).clamp(0, shot.length)
        shot = shot.with(dissolve:, wipe: pattern(event)) if dissolve.positive? && %w[dissolve wipe].include?(change.kind)
        @placed << Placed.new(shot, event, source.rule)
      end

      # What runs backwards shows the last of its frames first.
      def first(event, source)
        span = event.source_out.frames - event.source_in.frames
        (event.speed.negative? && span.positive?) ? source.first + span - 1 : source.first
      end

      # Speeds are told with few decimals, so that the last frame may lie just outside.
      def within(shot, event)
        beyond = [shot.source_in, shot.source_at(shot.record_out - 1)].map { |frame| frame - frame.clamp(0, shot.clip_frames - 1) }.max_by(&:abs)
        return shot if beyond.zero?

        notes << "event #{event.number}: its frames lie #{beyond.abs} beyond its clip, and were moved in"
        shot.with(source_in: shot.source_in - beyond)
      end

      def pattern(event)
        return unless event.transition.kind == "wipe"
        return event.transition.wipe if Wipe::PATTERNS.key?(event.transition.wipe)

        notes << "event #{event.number}: wipe #{event.transition.wipe} is not known here and runs from left to right"
        Wipe::PLAIN
      end

      def healed
        wanted = @placed.map(&:shot)
        shortened = Edit.healed(wanted).shots
        wanted.zip(shortened).each_with_index.map do |(shot, other), index|
          next other if other.dissolve == shot.dissolve

          @short += 1
          made = shot.with(**{"shorten" => other.to_h.slice(:dissolve, :wipe, :manner), "hold" => {manner: shot.manner.with("hold" => true)}, "leave" => {dissolve: 0, wipe: nil}}.fetch(@handles))
          tell(@placed[index].event, shot, wanted[index - 1], other.dissolve)
          made
        end.then { |shots| Edit.new(shots).shots.zip(@placed).map { |shot, one| Placed.new(shot, one.event, one.rule) } }
      end

      DONE = {"shorten" => "it is as long as that", "hold" => "its last frame is held", "leave" => "it is left a cut"}.freeze
      private_constant :DONE

      def tell(event, shot, before, handle)
        notes << "event #{event.number}: its #{shot.wipe ? "wipe" : "dissolve"} wants #{shot.dissolve} frames of handle after #{before.name}, which has #{handle}; #{DONE.fetch(@handles)}"
      end
    end
  end
end
