# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # V-Log. Source: V-Log/V-Gamut reference manual, 2014, 2.
      VLog = LogToe.new(a: 1.0, b: 0.00873, c: 0.241514, d: 0.598206, e: 5.6, f: 0.125, cut: 0.01, code_cut: 0.181)
    end
  end
end
