# frozen_string_literal: true

module Mordant
  module Grade
    # What a picture is made for: an encoding and, for a display, a rendering and a
    # gamut it is held to.
    View = Struct.new(:encoding, :rendering, :limit, keyword_init: true) do
      # @param encoding [String] encoding id
      # @param rendering [String, nil] rendering id
      # @param limit [String, nil] a gamut within the encoding's own, see Colour::GamutLimit
      def initialize(encoding:, rendering: nil, limit: nil)
        super
        freeze
      end

      def to_s
        held = limit && "held to #{Colour::GamutLimit::ALL.fetch(limit).name}"
        [Colour.encoding(encoding).label, rendering && Colour.rendering(rendering).label, held].compact.join(", ")
      end

      # @return [View] as it acts on pictures of a working space: those of a display
      #   are rendered already
      def within(space) = space.scene? ? self : View.new(encoding:, limit:)
    end
    View::STANDARD = View.new(encoding: "rec709-bt1886", rendering: "sdr-video-1.0")
    View::MASTER = View.new(encoding: "aces2065-1")
  end
end
