# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      AcescctCurve = Encoding.signal("acescct-curve", label: "ACEScct, curve only", source: "Academy S-2016-001", transfer: Transfer::Acescct)
    end
  end
end
