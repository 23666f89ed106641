# frozen_string_literal: true

module Mordant
  # Look-up tables: a Lattice of three dimensions, a Curve1d a channel, a LUT that
  # may have both, and the files they come in (Cube).
  module Lut
  end
end
