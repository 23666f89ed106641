# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # Source: C-Log2 and Cinema Gamut specification, v1.2.
      CLog2 = OddLog.new(scale: 0.24136077, gain: 87.099375, offset: 0.092864125)
    end
  end
end
