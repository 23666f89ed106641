# frozen_string_literal: true

module Mordant
  module Colour
    # White points, xy chromaticities (CIE 1931, 2 degree observer).
    module White
      D65 = [0.3127, 0.3290].freeze # ITU-R BT.709
      ACES = [0.32168, 0.33767].freeze # SMPTE ST 2065-1, near D60
      DCI = [0.314, 0.351].freeze # SMPTE RP 431-2
    end
  end
end
