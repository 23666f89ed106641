# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      HlgSignal = Encoding.signal("hlg-signal", label: "HLG signal, curve only", source: "ITU-R BT.2100-2", transfer: Transfer::HLG)
    end
  end
end
