# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # L-Log. Source: L-Log reference manual 1.6, 2021.
      LLog = LogToe.new(a: 1.3, b: 0.0115, c: 0.27, d: 0.6, e: 8.0, f: 0.09, cut: 0.006, code_cut: 0.1380)
    end
  end
end
