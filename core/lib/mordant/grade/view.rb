# frozen_string_literal: true

module Mordant
  module Grade
    # What a picture is made for: an encoding and, for a display, a rendering.
    View = Struct.new(:encoding, :rendering, keyword_init: true) do
      # @param encoding [String] encoding id
      # @param rendering [String, nil] rendering id
      def initialize(encoding:, rendering: nil)
        super
        freeze
      end

      def to_s = [Colour.encoding(encoding).label, rendering && Colour.rendering(rendering).label].compact.join(", ")
    end
    View::STANDARD = View.new(encoding: "rec709-bt1886", rendering: "sdr-video-1.0")
    View::MASTER = View.new(encoding: "aces2065-1")
  end
end
