# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      # The display connection space itself.
      XyzD65 = Encoding.register(Encoding.new(
        id: "xyz-d65", label: "CIE XYZ, D65", source: "CIE 15:2004", kind: Encoding::DISPLAY,
        primaries: nil, transfer: Transfer::Linear, decoding: [], encoding: []
      ))
    end
  end
end
