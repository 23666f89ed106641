# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      SceneLinear = Encoding.signal("scene-linear", label: "scene light 0..1, curve only", source: "ITU-R BT.2100-2", transfer: Transfer::Linear)
    end
  end
end
