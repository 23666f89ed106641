# frozen_string_literal: true

module Mordant
  module Deliver
    module Formats
      # VC-3 (SMPTE ST 2019-1) of 10 bits in a QuickTime file.
      class Vc3Mov < VideoFormat
        named "vc3-mov", "VC-3 in MOV", extension: ".mov", bits: 10, about: "10 bit 4:2:2, every frame by itself"
        encoded pixels: "yuv422p10le", encoder: %w[-c:v dnxhd -profile:v dnxhr_hqx], container: %w[-write_tmcd 1 -f mov], intra: true, least: [256, 120]
      end
    end
  end
end
