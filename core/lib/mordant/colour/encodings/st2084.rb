# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      St2084 = Encoding.signal("st2084", label: "ST 2084, curve only", source: "SMPTE ST 2084:2014", transfer: Transfer::PQ)
    end
  end
end
