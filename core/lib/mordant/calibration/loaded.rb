# frozen_string_literal: true

require "digest"

module Mordant
  module Calibration
    # What corrects a screen, loaded: from canvas codes to canvas codes.
    Loaded = Struct.new(:digest, :lattice) do
      # @param text [String] a .cube file
      def self.of(text)
        lattice = Lut::Cube.new("correction.cube", text).table.lattice
        new(Digest::SHA256.hexdigest(text)[0, 24], lattice)
      end
    end
  end
end
