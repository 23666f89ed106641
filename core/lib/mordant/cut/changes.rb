# frozen_string_literal: true

module Mordant
  module Cut
    # Where the shots of a flat programme change: hard cuts, dissolves, and fades through one colour.
    #
    # Looked for in small pictures (see Thumbs), part by part, so that memory does not grow with the programme.
    module Changes
      # kind: "cut", "dissolve" or "fade"; frame: the first of the new shot, the first that holds anything of it, the first that
      # darkens; length: frames that are neither the one shot nor the other, 0 of a cut.
      Change = Struct.new(:frame, :kind, :length, keyword_init: true) do
        # @return [Integer] the first frame that is the new shot's alone
        def over = frame + length

        # @return [Hash] for JSON
        def to_h = {"frame" => frame, "kind" => kind, **((kind == "cut") ? {} : {"length" => length})}
      end

      PART = 1200 # frames looked at together
      TOLD = 48 # frames after which it is told how far it is
      # Frames before and after a part that are looked at with it: a change and what surrounds it.
      AROUND = 160

      module_function

      # @param path [String] a video
      # @yieldparam done [Integer] frames that have been looked at
      # @return [Array<Change>] in order
      # @raise [MediaError]
      def of(path)
        found, held, first = [], [], 0
        Thumbs.each(path) do |thumb, known|
          held << [thumb, known]
          yield first + held.size if block_given? && (held.size % TOLD).zero?
          next if held.size < PART + 2 * AROUND

          found.concat(part(held, first, last: false))
          held = held.drop(PART)
          first += PART
        end
        found.concat(part(held, first, last: true)) if held.any?
        once(found)
      end

      # @param thumbs [Array<Array(Numo::UInt8, Boolean)>] and whether each was decoded
      # @param first [Integer] frame of the programme that the first of them is
      # @return [Array<Change>] that begin in the part, without what surrounds it
      def part(thumbs, first, last:)
        hard = hard(thumbs)
        slow = Gradual.new(Pictures.new(thumbs.map(&:first))).changes(hard)
        cuts = hard.reject { |frame| slow.any? { |change| frame.between?(change.frame, change.over) } }.map { |frame| Change.new(frame:, kind: "cut", length: 0) }
        from = first.zero? ? 0 : AROUND
        upto = last ? thumbs.size : PART + AROUND
        (cuts + slow).select { |change| change.frame >= from && change.frame < upto }.sort_by(&:frame)
          .map { |change| Change.new(frame: change.frame + first, kind: change.kind, length: change.length) }
      end

      # Looked for in what was decoded alone.
      #
      # @return [Array<Integer>]
      def hard(thumbs)
        known = thumbs.each_index.select { |frame| thumbs[frame].last }
        Hard.new(Pictures.new(known.map { |frame| thumbs[frame].first }), pace: thumbs.size.fdiv(known.size)).frames.map { |at| known[at] }
      end

      # What two parts have found of the same change is one.
      def once(changes) = changes.sort_by(&:frame).chunk_while { |a, b| a.kind == b.kind && (b.frame - a.frame) <= 2 }.map(&:first)
    end
  end
end
