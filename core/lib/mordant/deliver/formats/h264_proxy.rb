# frozen_string_literal: true

module Mordant
  module Deliver
    module Formats
      # H.264 of 8 bits, small, for dailies.
      class H264Proxy < VideoFormat
        named "h264-8", "H.264, 8 bit", extension: ".mp4", bits: 8, about: "MP4, 8 bit 4:2:0, small"
        encoded pixels: "yuv420p", encoder: %w[-c:v libx264 -preset veryfast -crf 20], container: %w[-movflags +faststart+use_metadata_tags -f mp4],
          slim: H264::SLIM
      end
    end
  end
end
