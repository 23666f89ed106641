# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      # One encoding for each exposure index the curve is published for.
      Logc3Wg3 = Transfer::LogC3::CURVES.map do |index, curve|
        Encoding.scene(
          "logc3-ei#{index}-wg3",
          label: "LogC3 EI #{index} · Wide Gamut 3",
          source: "LogC curve white paper, 2017",
          primaries: Primaries::WIDE_GAMUT_3,
          transfer: curve,
          adaptation: :cat02
        )
      end
    end
  end
end
