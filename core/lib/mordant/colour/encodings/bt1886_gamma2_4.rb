# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      Bt1886Gamma24 = Encoding.signal("bt1886-gamma2.4", label: "gamma 2.4, curve only", source: "ITU-R BT.1886", transfer: Transfer::Power.new(2.4))
    end
  end
end
