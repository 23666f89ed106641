# frozen_string_literal: true

module Mordant
  module Cut
    # A list laid over one flat programme: where to cut it. A transition, which is baked in, is a stretch of its own.
    module Notch
      # first, length: frames of the programme; event: nil of what lies between events; transition: it is that of the event.
      Piece = Struct.new(:first, :length, :event, :transition, keyword_init: true)

      module_function

      # @param list [List]
      # @param start [Integer] frame of the programme that the list's first record frame is, below 0 where it begins before it
      # @param frames [Integer] of the programme
      # @return [Array<Piece>] one after another, all within it
      # @raise [ParameterError] of a list that lies beside the programme
      def pieces(list, start:, frames:)
        from = list.events.first&.record_in&.frames
        shown = list.events.reject { |event| event.transition.kind == "key" }
        ends = [nil, *shown].each_cons(2).flat_map { |before, event| [*between(before, event), *parts(event)] }
        found = ends.map { |first, length, event, transition| Piece.new(first: first - from + start, length:, event:, transition:) }.filter_map { |piece| within(piece, frames) }
        raise ParameterError.new(path: "list", expected: "record times within the #{frames} frames of the programme", found: list.events.first&.record_in.to_s) if found.empty?

        found
      end

      def between(before, event)
        hole = before ? event.record_in.frames - before.record_out.frames : 0
        hole.positive? ? [[before.record_out.frames, hole, nil, false]] : []
      end

      def parts(event)
        change = event.transition.length
        [[event.record_in.frames, change, event, true], [event.record_in.frames + change, event.length - change, event, false]].select { |_, length| length.positive? }
      end

      def within(piece, frames)
        first, past = [piece.first, 0].max, [piece.first + piece.length, frames].min
        Piece.new(**piece.to_h, first:, length: past - first) if past > first
      end
    end
  end
end
