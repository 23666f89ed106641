# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      Linear = Encoding.signal("linear", label: "linear, curve only", source: "proportional to light", transfer: Transfer::Linear)
    end
  end
end
