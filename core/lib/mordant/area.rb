# frozen_string_literal: true

module Mordant
  # Operations in which a pixel depends on those near it. What they make of a pixel does not
  # depend on how much of the picture around its neighbourhood is given, to the bit: running sums
  # are of whole numbers, which add up exactly in any order, and blocks lie on the picture's grid.
  module Area
  end
end
