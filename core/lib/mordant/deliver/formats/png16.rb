# frozen_string_literal: true

module Mordant
  module Deliver
    module Formats
      # PNG of 16 bits.
      class Png16 < SequenceFormat
        named "png-16", "PNG, 16 bit", extension: ".png", bits: 16, about: "RGB, one file a frame"
        LEVEL = 4 # of zlib

        def self.bytes(frame, _facts, dither: nil, **) = Media::Png.encode(frame, bits:, compression: LEVEL, dither:)
      end
    end
  end
end
