# frozen_string_literal: true

module Mordant
  module Deliver
    module Formats
      # DPX of 16 bits.
      class Dpx16 < SequenceFormat
        named "dpx-16", "DPX, 16 bit", extension: ".dpx", bits: 16, about: "RGB, one file a frame"

        def self.bytes(frame, facts, dither: nil, **) = Media::Dpx.new(bits:).encode(frame, facts, dither:)
      end
    end
  end
end
