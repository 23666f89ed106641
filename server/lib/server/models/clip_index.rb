# frozen_string_literal: true

module Server
  # The frame index of a video that was taken in, kept apart as it can be long.
  class ClipIndex < Record
    belongs_to :clip

    # @param clip [Clip]
    # @return [Mordant::Media::FrameIndex] of the file as it is now
    # @raise [Mordant::MediaError]
    def self.of(clip)
      kept = find_by(clip:)
      index = kept && Mordant::Media::FrameIndex.load(kept.bytes)
      return index if index && index.stamp == Mordant::Media::FrameIndex.stamp(clip.file)

      keep(clip, Mordant::Media::FrameIndex.of(clip.file))
    end

    # @return [Mordant::Media::FrameIndex] that was given
    def self.keep(clip, index)
      upsert({clip_id: clip.id, bytes: index.dump}, unique_by: :clip_id)
      index
    end
  end
end
