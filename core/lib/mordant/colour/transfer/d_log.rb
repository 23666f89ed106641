# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # D-Log. Source: white paper on D-Log and D-Gamut, 2017.
      DLog = LogToe.new(a: 0.9892, b: 0.0108, c: 0.256663, d: 0.584555, e: 6.025, f: 0.0929, cut: 0.0078, code_cut: 0.14)
    end
  end
end
