# frozen_string_literal: true

module Mordant
  module Deliver
    module Formats
      # AV1 in MP4.
      class Av1 < VideoFormat
        named "av1", "AV1", extension: ".mp4", bits: 10, about: "MP4, 10 bit 4:2:0"
        encoded pixels: "yuv420p10le", encoder: %w[-c:v libsvtav1 -preset 7 -crf 18], container: %w[-movflags +faststart+use_metadata_tags -f mp4], least: [64, 64],
          slim: %w[-preset 10 -crf 16 -svtav1-params lp=1:lookahead=0:hierarchical-levels=2:enable-tf=0:scd=0] # nearer than the smaller ones, larger, in a third of the time
      end
    end
  end
end
