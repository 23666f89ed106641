# frozen_string_literal: true

module Mordant
  module Deliver
    module Formats
      # H.264 in MP4, as everybody can play it.
      class H264 < VideoFormat
        SLIM = %w[-x264-params rc-lookahead=3:sync-lookahead=0:sliced-threads=1:threads=4].freeze

        named "h264", "H.264", extension: ".mp4", bits: 10, about: "MP4, 10 bit 4:2:0"
        encoded pixels: "yuv420p10le", encoder: %w[-c:v libx264 -preset medium -crf 14], container: %w[-movflags +faststart+use_metadata_tags -f mp4],
          slim: [*SLIM, "-preset", "veryfast", "-crf", "13"] # nearer than the smaller ones, a fifth larger, in half the time
      end
    end
  end
end
