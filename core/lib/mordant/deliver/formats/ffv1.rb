# frozen_string_literal: true

module Mordant
  module Deliver
    module Formats
      # FFV1 (RFC 9043) of 16-bit RGB in Matroska: nothing is lost.
      class Ffv1 < VideoFormat
        named "ffv1", "FFV1 in Matroska", extension: ".mkv", bits: 16, about: "16-bit RGB without loss"
        encoded pixels: "gbrp16le", encoder: %w[-c:v ffv1 -level 3 -g 1 -slices 4 -slicecrc 1], container: %w[-f matroska], intra: true
      end
    end
  end
end
