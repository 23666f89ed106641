# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      Acescc = Encoding.scene(
        "acescc",
        label: "ACEScc",
        source: "Academy S-2014-003",
        primaries: Primaries::AP1,
        transfer: Transfer::Acescc
      )
    end
  end
end
