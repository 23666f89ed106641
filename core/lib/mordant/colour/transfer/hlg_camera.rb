# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # Hybrid log-gamma as a camera writes it, light scaled so that diffuse white is
      # 1.0 at a signal of 75 %; mid grey then has 38 %.
      #
      # Source: ITU-R BT.2100-2, table 5; BT.2408-7, table 1.
      module HlgCamera
        DIFFUSE_WHITE = HLG.decode(Numo::DFloat[0.75])[0]

        module_function

        def encode(linear) = HLG.encode(linear * DIFFUSE_WHITE)

        def decode(code) = HLG.decode(code) / DIFFUSE_WHITE
      end
    end
  end
end
