# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      Acesproxy10 = Encoding.scene(
        "acesproxy10",
        label: "ACESproxy, 10 bits",
        source: "Academy S-2013-001",
        primaries: Primaries::AP1,
        transfer: Transfer::Acesproxy10
      )
    end
  end
end
