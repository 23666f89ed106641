# frozen_string_literal: true

module Mordant
  module Lut
    # What a LUT file holds: curves, a lattice, or curves before a lattice.
    Table = Struct.new(:title, :shaper, :lattice, keyword_init: true) do
      def initialize(title: nil, shaper: nil, lattice: nil)
        raise ParameterError.new(path: "lut", expected: "curves or a lattice", found: "neither") unless shaper || lattice

        super
        freeze
      end

      # @return [Array] Pointwise operations
      def operations = [*shaper&.curve, *lattice]
    end
  end
end
