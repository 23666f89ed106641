# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      Rec2100Hlg1000nit = HlgDisplay.register("rec2100-hlg-1000nit", label: "BT.2100 HLG, 1000 cd/m2", peak: 10.0)
    end
  end
end
