# frozen_string_literal: true

module Server
  module Pictures
    # Frames of other footage at the raster that a matte is wanted at, and which of them belongs to a frame of a
    # shot: frame by frame where both are as long, else the one of the same timecode, else the
    # nearest there is.
    module MatteFrames
      AHEAD = 4 # frames decoded in one go at a raster beyond the screen's

      module_function

      # @param shot [Shot]
      # @param frame [Integer] from its first one
      # @param length [Integer] of what is looked at
      # @param start [Integer, nil] frames since midnight of its first frame; nil without timecode
      # @return [Integer] from its first frame
      def at(shot, frame, length:, start:)
        return frame.clamp(0, length - 1) if length == shot.length || start.nil? || shot.clip.start.nil?

        place = shot.place
        by_timecode = shot.clip.start_frames + place.source_at(shot.record_in + frame.clamp(0, shot.length - 1)) - start
        by_timecode.between?(0, length - 1) ? by_timecode : frame.clamp(0, length - 1)
      end

      # @param clip [Clip]
      # @param number [Integer] source frame
      # @param raster [#width, #height]
      # @return [Mordant::Media::Codes]
      def codes(clip, number, raster)
        width, height = Desk.raster(clip.project)
        by = (raster.width < width) ? (1..8).find { |one| [width / one, height / one] == [raster.width, raster.height] } : nil
        store = Desk.current.store
        return store.fetch(clip, number, width:, height:, reduction: by, ahead: FrameStore.ahead(clip)) if by

        store.fetch(clip, number, width: raster.width, height: raster.height, ahead: (raster.width > width) ? AHEAD : FrameStore.ahead(clip))
      end
    end
  end
end
