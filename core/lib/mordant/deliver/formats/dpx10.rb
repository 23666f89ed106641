# frozen_string_literal: true

module Mordant
  module Deliver
    module Formats
      # DPX of 10 bits.
      class Dpx10 < SequenceFormat
        named "dpx-10", "DPX, 10 bit", extension: ".dpx", bits: 10, about: "RGB, one file a frame"

        def self.bytes(frame, facts, dither: nil, **) = Media::Dpx.new(bits:).encode(frame, facts, dither:)
      end
    end
  end
end
