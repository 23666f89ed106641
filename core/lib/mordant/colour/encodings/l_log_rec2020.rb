# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      LLogRec2020 = Encoding.scene(
        "l-log-rec2020",
        label: "L-Log · BT.2020",
        source: "L-Log reference manual 1.6, 2021",
        primaries: Primaries::REC2020,
        transfer: Transfer::LLog
      )
    end
  end
end
