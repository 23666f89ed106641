# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      Acescg = Encoding.scene(
        "acescg",
        label: "ACEScg",
        source: "Academy S-2014-004",
        primaries: Primaries::AP1
      )
    end
  end
end
