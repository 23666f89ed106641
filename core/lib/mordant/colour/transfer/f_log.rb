# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # F-Log. Source: F-Log data sheet 1.0, 2016.
      FLog = LogToe.new(a: 0.555556, b: 0.009468, c: 0.344676, d: 0.790453, e: 8.735631, f: 0.092864, cut: 0.00089,
        code_cut: 0.100537775223865)
    end
  end
end
