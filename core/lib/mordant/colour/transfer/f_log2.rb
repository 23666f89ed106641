# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # F-Log2. Source: F-Log2 data sheet 1.0, 2022.
      FLog2 = LogToe.new(a: 5.555556, b: 0.064829, c: 0.245281, d: 0.384316, e: 8.799461, f: 0.092864, cut: 0.000889,
        code_cut: 0.100686685370811)
    end
  end
end
