# frozen_string_literal: true

module Mordant
  module Deliver
    module Formats
      # VC-3 (SMPTE ST 2019-1) of 10 bits in MXF (SMPTE ST 377-1).
      class Vc3Mxf < VideoFormat
        named "vc3-mxf", "VC-3 in MXF", extension: ".mxf", bits: 10, about: "10 bit 4:2:2, every frame by itself"
        encoded pixels: "yuv422p10le", encoder: %w[-c:v dnxhd -profile:v dnxhr_hqx], container: %w[-f mxf], intra: true, least: [256, 120]
      end
    end
  end
end
