# frozen_string_literal: true

module Mordant
  module Grade
    # What a picture is made for: an encoding and, for a display, a rendering and a
    # gamut it is held to; or a look-up table instead of the rendering; or a rendition of what another view shows.
    View = Struct.new(:encoding, :rendering, :limit, :lut, :expects, :strength, :aim, :mappings, keyword_init: true) do
      # @param encoding [String] encoding id; of a view through a LUT, what the LUT returns
      # @param rendering [String, nil] rendering id
      # @param limit [String, nil] a gamut within the encoding's own, see Colour::GamutLimit
      # @param lut [String, nil] path in the library
      # @param expects [String, nil] encoding id of what the LUT wants; nil: log codes of the working space
      # @param strength [Float, nil] how much of the LUT, 0.0..1.0; the rest is what the view would be
      #   without it, rendered by REST. nil: all of it
      # @param aim [Rendition::Aim, nil] of a rendition
      # @param mappings [Array<Rendition::Mapping>, nil] of a rendition of a frame: of its shot, or of the outgoing and the incoming one
      def initialize(encoding:, rendering: nil, limit: nil, lut: nil, expects: nil, strength: nil, aim: nil, mappings: nil)
        super
        freeze
      end

      # @param document [Hash] with those keys as texts
      # @param document [Hash] also "rendition", see Rendition::Aim
      # @param leading [View, nil] of the HDR picture that renditions are made of
      # @param target [String, nil] id of the target that it is
      # @param path [String] for errors
      # @return [View]
      # @raise [ParameterError]
      def self.from(document, path: "view", leading: nil, target: nil)
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
        refuse["rendition", "none beside a rendering or a LUT"] if document["rendition"] && (one["lut"] || one["rendering"])
        aim = document["rendition"]&.then { |found| Rendition::Aim.read(found, encoding: one["encoding"], limit: one["limit"], of: leading, target:, path: "#{path}.rendition") }
        new(**%i[encoding rendering limit lut expects].to_h { |key| [key, one[key.to_s]] }, strength: (strength.to_f if strength && strength < 1), aim:)
      end

      # @return [Array] changes when a file it reads does, or what it is bound to
      def stamps = [*(Lut::Library.stamp(lut) || lut if lut), *aim&.of&.stamps, *mappings]

      # As kept; what it is bound to at a frame is not.
      #
      # @return [Hash{Symbol => Object}] for JSON
      def to_h = super.except(:aim, :mappings).merge({rendition: aim&.to_h}.compact)

      # @return [Hash{String => Object}] what .from reads
      def document = to_h.compact.transform_keys(&:to_s)

      # @param mappings [Array<Rendition::Mapping>]
      # @return [View] of a rendition, at a frame
      def bound(mappings) = View.new(**members.to_h { |name| [name, self[name]] }, mappings: mappings.uniq.freeze)

      def to_s
        held = limit && "held to #{Colour::GamutLimit::ALL.fetch(limit).name}"
        [Colour.encoding(encoding).label, aim&.to_s, rendering && Colour.rendering(rendering).label, lut && [lut, strength && "at #{(strength * 100).round} %"].compact.join(" "), held].compact.join(", ")
      end

      # @return [View] as it acts on pictures of a working space: those of a display
      #   are rendered already
      def within(space) = space.scene? ? self : View.new(encoding:, limit:, lut:, expects:, strength:, aim:, mappings:)
    end
    # Renders what a LUT at less than its full strength leaves.
    View::REST = "sdr-video-1.0"
    View::STANDARD = View.new(encoding: "rec709-bt1886", rendering: "sdr-video-1.0")
    View::MASTER = View.new(encoding: "aces2065-1")
  end
end
