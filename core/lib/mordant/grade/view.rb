# frozen_string_literal: true

module Mordant
  module Grade
    # What a picture is made for: an encoding and, for a display, a rendering and a
    # gamut it is held to; or a look-up table instead of the rendering.
    View = Struct.new(:encoding, :rendering, :limit, :lut, :expects, :strength, keyword_init: true) do
      # @param encoding [String] encoding id; of a view through a LUT, what the LUT returns
      # @param rendering [String, nil] rendering id
      # @param limit [String, nil] a gamut within the encoding's own, see Colour::GamutLimit
      # @param lut [String, nil] path in the library
      # @param expects [String, nil] encoding id of what the LUT wants; nil: log codes of the working space
      # @param strength [Float, nil] how much of the LUT, 0.0..1.0; the rest is what the view would be
      #   without it, rendered by REST. nil: all of it
      def initialize(encoding:, rendering: nil, limit: nil, lut: nil, expects: nil, strength: nil)
        super
        freeze
      end

      # @param document [Hash] with those keys as texts
      # @param path [String] for errors
      # @return [View]
      # @raise [ParameterError]
      def self.from(document, path: "view")
        refuse = ->(key, expected) { raise ParameterError.new(path: "#{path}.#{key}", expected:, found: document[key]) }
        raise ParameterError.new(path:, expected: "an object", found: document) unless document.is_a?(Hash)

        one = ->(key) { document[key].to_s.empty? ? nil : document[key].to_s }
        known = ->(id) { Colour::Encoding.known?(id) && Colour.encoding(id).pictures? }
        refuse["encoding", "the id of an encoding of pictures"] unless known[one["encoding"]]
        refuse["expects", "the id of an encoding of pictures"] if one["expects"] && !known[one["expects"]]
        refuse["rendering", "the id of a rendering"] if one["rendering"] && !Colour::Rendering.known?(one["rendering"])
        refuse["rendering", "none towards scene light"] if one["rendering"] && Colour.encoding(one["encoding"]).scene?
        refuse["limit", Colour::GamutLimit::ALL.keys.join(", ")] if one["limit"] && !Colour::GamutLimit::ALL.key?(one["limit"])
        refuse["limit", "none towards scene light"] if one["limit"] && Colour.encoding(one["encoding"]).scene?
        refuse["lut", "a path below the LUT library"] if one["lut"] && !Lut::Library.path?(one["lut"])
        refuse["lut", "none beside a rendering"] if one["lut"] && one["rendering"]
        strength = document["strength"]
        given = strength.nil? || [one["lut"], strength.is_a?(Numeric) && strength.between?(0, 1)].all?
        refuse["strength", "a number in 0..1, of a LUT"] unless given
        new(**%i[encoding rendering limit lut expects].to_h { |key| [key, one[key.to_s]] }, strength: (strength.to_f if strength && strength < 1))
      end

      # @return [Array] changes when a file it reads does
      def stamps = lut ? [Lut::Library.stamp(lut) || lut] : []

      def to_s
        held = limit && "held to #{Colour::GamutLimit::ALL.fetch(limit).name}"
        [Colour.encoding(encoding).label, rendering && Colour.rendering(rendering).label, lut && [lut, strength && "at #{(strength * 100).round} %"].compact.join(" "), held].compact.join(", ")
      end

      # @return [View] as it acts on pictures of a working space: those of a display
      #   are rendered already
      def within(space) = space.scene? ? self : View.new(encoding:, limit:, lut:, expects:, strength:)
    end
    # Renders what a LUT at less than its full strength leaves.
    View::REST = "sdr-video-1.0"
    View::STANDARD = View.new(encoding: "rec709-bt1886", rendering: "sdr-video-1.0")
    View::MASTER = View.new(encoding: "aces2065-1")
  end
end
