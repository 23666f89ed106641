# frozen_string_literal: true

require "digest"

module Mordant
  module Calibration
    # What corrects a screen, loaded: from codes of its canvas (see Grade::Screen) to codes of the same.
    Loaded = Struct.new(:digest, :lattice, :canvas) do
      # @param text [String] a .cube file
      # @param settings [Settings] of the session that made it
      # @raise [FormatError]
      def self.of(text, settings) = new(Digest::SHA256.hexdigest(text)[0, 24], Lut::Cube.new("correction.cube", text).table.lattice, settings.kind.canvas)
    end
  end
end
