# frozen_string_literal: true

require "delegate"

module Server
  module Pictures
    # A cut of one frame, for what it does not show itself: a shot beyond its ends while they are trimmed, or the
    # programme that lies under it.
    class Lone < SimpleDelegator
      KEY = :lone

      # A frame of a shot, wherever the clip has one.
      #
      # @param shot [Shot]
      # @param offset [Integer] record frames from its first one, also below 0 or past its end
      # @param slip [Integer] frames of the clip that it is to be slipped by
      # @return [Lone] whose only frame is that many from the shot's first record frame
      # @raise [Mordant::ParameterError] of a frame that the clip does not have
      def self.beyond(shot, offset, slip: 0)
        source_in, phase = shot.place.with(source_in: shot.source_in + slip).place_after(offset)
        new(shot.cut, shot, shot.place.with(key: KEY, record_in: shot.record_in + offset, source_in:, phase:, length: 1, dissolve: 0, wipe: nil))
      end

      # @param cut [Cut] with a reference programme
      # @param frame [Integer] record frame
      # @return [Lone]
      # @raise [Mordant::ParameterError] where the programme has no frame
      def self.programme(cut, frame)
        clip = cut.reference_clip || raise(Mordant::ParameterError.new(path: "programme", expected: "a cut with a reference programme", found: "none"))
        clip.association(:project).target = cut.project
        at = frame + cut.reference_offset
        raise Mordant::ParameterError.new(path: "programme", expected: "a frame that #{clip.stem} has", found: "frame #{at} of #{clip.frames}") unless (0...clip.frames).cover?(at)

        shot = Shot.new(cut:, clip:, name: clip.stem, source_in: at, record_in: frame, length: 1)
        new(cut, shot, Mordant::Cut::Timeline::Shot.new(key: KEY, source_in: at, record_in: frame, length: 1, clip_frames: clip.frames))
      end

      def initialize(cut, shot, place)
        super(cut)
        @shot = shot
        @timeline = Mordant::Cut::Timeline.new([place])
      end

      attr_reader :timeline

      # @return [Renditions] of its frame
      def renditions = @renditions ||= Renditions.new(self)

      def shot(_key) = @shot
    end
  end
end
