# frozen_string_literal: true

module Mordant
  module Lut
    class Clf
      # A lattice over 0..1. In files the blue index is the fastest.
      class Lut3d < Node
        INTERPOLATIONS = %w[trilinear tetrahedral].freeze

        def self.element = "LUT3D"

        def self.parse(markup, in_scale:, out_scale:)
          dimensions, values = array(markup)
          size = dimensions.first
          fine = dimensions == [size, size, size, 3] && Lattice::SIZES.cover?(size)
          markup.fault("an Array of dim n n n 3 with n in #{Lattice::SIZES}", dimensions.join(" ")) unless fine
          nodes = values.reshape(size, size, size, 3).transpose(2, 1, 0, 3).dup.reshape(size**3, 3)
          new(Lattice.new(nodes / out_scale, size:, interpolation: markup.choice("interpolation", INTERPOLATIONS, "trilinear").to_sym))
        end

        # @param lattice [Lattice] over 0..1
        def initialize(lattice)
          @lattice = lattice
          freeze
        end

        def operations = [@lattice]

        def attributes = {"interpolation" => @lattice.interpolation.to_s}

        def fill(xml)
          size = @lattice.size
          rows = @lattice.data.reshape(size, size, size, 3).transpose(2, 1, 0, 3).dup.reshape(size**3, 3).to_a
          xml.Array("\n#{rows.map { |row| words(row) }.join("\n")}\n", "dim" => "#{size} #{size} #{size} 3")
        end
      end
    end
  end
end
