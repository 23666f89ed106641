# frozen_string_literal: true

module Mordant
  module Deliver
    module Formats
      # TIFF of 16 bits.
      class Tiff16 < SequenceFormat
        named "tiff-16", "TIFF, 16 bit", extension: ".tif", bits: 16, about: "RGB, deflate, one file a frame"

        # @raise [MediaError]
        def self.bytes(frame, _facts, dither: nil, **)
          Media::Png.image(frame, bits, dither:).write_to_buffer(".tif", compression: :deflate, predictor: :horizontal)
        end
      end
    end
  end
end
