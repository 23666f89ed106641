# frozen_string_literal: true

module Mordant
  module Cut
    # Where the shots of a flat programme change: hard cuts, dissolves, and fades through one colour.
    #
    # Looked for in small pictures (see Thumbs), part by part, so that memory does not grow with the programme.
    module Changes
      # kind: "cut", "dissolve" or "fade"; frame: the first of the new shot, the first that holds anything of it, the first that
      # darkens; length: frames that are neither the one shot nor the other, 0 of a cut; within: of a cut, frames of which it
      # is one, the last of them, where some were not decoded.
      Change = Struct.new(:frame, :kind, :length, :within, keyword_init: true) do
        def initialize(length: 0, within: 1, **rest) = super

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
      # @param probe [Media::Probe] of it
      # @yieldparam done [Integer] frames that have been looked at
      # @return [Array<Change>] in order
      # @raise [MediaError]
      def of(path, probe: Media::Probe.new(path))
        found, held, first, told = [], [], 0, 0
        Thumbs.each(path, probe) do |thumb, frame|
          held << [thumb, frame]
          yield told = frame if block_given? && frame - told >= TOLD
          next if frame - first < PART + 2 * AROUND

          found.concat(part(held, first, last: false))
          first += PART
          held = held.drop_while { |_, at| at < first }
        end
        found.concat(part(held, first, last: true)) if held.any?
        placed(once(found), path, probe)
      end

      # @param thumbs [Array<Array(Numo::UInt8, Integer)>] and the frame of the programme that each is
      # @param first [Integer] frame that the part and what surrounds it begin with
      # @return [Array<Change>] that begin in the part, without what surrounds it
      def part(thumbs, first, last:)
        start = thumbs.first.last
        pictures = Pictures.new(thumbs.map(&:first), times: thumbs.map { |_, frame| frame - start })
        hard = Hard.new(pictures).frames
        slow = Gradual.new(pictures).changes(hard)
        cuts = hard.map { |at| Change.new(frame: pictures.times[at], kind: "cut", within: pictures.gap(at)) }.reject { |cut| slow.any? { |change| cut.frame.between?(change.frame, change.over) } }
        (cuts + slow).each { |change| change.frame += start }
          .select { |change| (first.zero? || change.frame >= first + AROUND) && (last || change.frame < first + PART + AROUND) }.sort_by(&:frame)
      end

      # Cuts that lie among frames that were not decoded, where the picture changes most.
      #
      # @return [Array<Change>]
      def placed(changes, path, probe)
        reader = nil
        changes.each do |cut|
          cut.frame = largest_step(reader ||= Media::Reader.new(path, facts: probe.facts, index: probe.index), (cut.frame - cut.within)..cut.frame) if cut.within > 1
        end
      end

      # @return [Integer] the frame among some before which the picture changes most; of damaged ones the last, in which the
      #   new shot was seen
      def largest_step(reader, frames)
        steps = Thumbs.stretch(reader, frames.begin, frames.size).each_cons(2).map { |a, b| (a - b).abs.mean }
        frames.begin + 1 + steps.index(steps.max)
      rescue MediaError
        frames.end
      end

      # What two parts have found of the same change is one.
      def once(changes) = changes.sort_by(&:frame).chunk_while { |a, b| a.kind == b.kind && (b.frame - a.frame) <= 2 }.map(&:first)
    end
  end
end
