# frozen_string_literal: true

module Mordant
  module Rendition
    # The screen that a rendition is made for: its light and its gamut, and the view of the HDR picture that it is made of. Immutable.
    class Aim
      KEYS = %w[peak black of target].freeze
      PEAKS = (10.0..10_000.0) # cd/m2
      BLACKS = (0.0..5.0) # cd/m2
      # Screens to choose from: name, encoding, gamut within that, peak and black in cd/m2. Relative codes have black where the
      # screen has it.
      LISTED = [
        ["BT.709 100", "rec709-bt1886", nil, 100.0, 0.0], ["P3-D65 100", "p3-d65-g2.6", nil, 100.0, 0.0],
        ["P3-D65 300", "rec2100-pq", "p3-d65", 300.0, 0.0], ["BT.2020 300", "rec2100-pq", nil, 300.0, 0.0],
        ["P3-D65 600", "rec2100-pq", "p3-d65", 600.0, 0.0], ["BT.2020 600", "rec2100-pq", nil, 600.0, 0.0],
        ["P3-D65 1000", "rec2100-pq", "p3-d65", 1000.0, 0.0], ["BT.2020 1000", "rec2100-pq", nil, 1000.0, 0.0]
      ].map { |name, encoding, limit, peak, black| {"name" => name, "encoding" => encoding, "limit" => limit, "rendition" => {"peak" => peak, "black" => black}}.compact }.freeze

      # @return [Float] cd/m2
      attr_reader :peak, :black
      # @return [Grade::View] of the HDR picture
      attr_reader :of
      # @return [String, nil] id of the target whose corrections it has
      attr_reader :target

      # @param document [Hash] peak and black; of, a view, and target, an id, where they are not given by what owns it
      # @param encoding [String] id of what the rendition is written in
      # @param limit [String, nil] see Grade::View
      # @param of [Grade::View, nil] instead of the document's
      # @param target [String, nil] the same
      # @raise [ParameterError]
      def self.read(document, encoding:, limit: nil, of: nil, target: nil, path: "rendition")
        Checks.held(path, document, KEYS)
        light = {"peak" => PEAKS, "black" => BLACKS}.map { |key, range| Checks.number(document.fetch(key, 0.0), "#{path}.#{key}", range) }
        Checks.reject("#{path}.black", "less than half of the peak", light.last) unless light.last < light.first / 2
        of ||= Grade::View.from(document["of"], path: "#{path}.of") if document["of"]
        target ||= document["target"] && Checks.text(document["target"], "#{path}.target")
        new(peak: light.first, black: light.last, of:, target:).tap { |aim| aim.check(encoding, limit, path) }
      end

      def initialize(peak:, black:, of:, target: nil)
        @peak, @black, @of, @target = peak, black, of, target
        freeze
      end

      # @raise [ParameterError]
      def check(encoding, limit, path)
        Checks.reject("#{path}.of", "the view of an HDR picture, in PQ or HLG", of.to_s) if of && !Aim.leads?(of)
        found = Colour.encoding(encoding)
        fine = !found.scene? && found.transfer != Colour::Transfer::HLG && Aim.gamut(encoding, limit)
        Checks.reject(path, "an encoding for screens of BT.709, P3-D65 or BT.2020 primaries, by PQ or by gamma", found.label) unless fine
      end

      # @return [Boolean] a picture in that view can have renditions
      def self.leads?(view) = view.aim.nil? && Colour.encoding(view.encoding).absolute?

      STANDARD = 120.0 # cd/m2, up to which screens of BT.709 are driven by gamma

      # What a screen that is told by its gamut and its peak alone is written in.
      #
      # @param gamut [String] a key of Colour::GamutLimit::ALL
      # @param peak [Numeric] cd/m2
      # @return [Hash] encoding and, within that, limit
      # @raise [ParameterError]
      def self.written(gamut, peak, path: "rendition")
        Checks.reject("#{path}.gamut", Colour::GamutLimit::ALL.keys.join(", "), gamut) unless Colour::GamutLimit::ALL.key?(gamut)
        Checks.number(peak, "#{path}.peak", PEAKS)
        return {"encoding" => "rec709-bt1886"} if gamut == "bt709" && peak <= STANDARD

        {"encoding" => "rec2100-pq", "limit" => (gamut unless gamut == "bt2020")}.compact
      end

      # @return [String, nil] the key of Colour::GamutLimit::ALL that an encoding is held to
      def self.gamut(encoding, limit)
        limit || Colour::GamutLimit::ALL.key(Colour.encoding(encoding).primaries)
      end

      def to_h = {"peak" => peak, "black" => black, "of" => of&.document, "target" => target}.compact

      def to_s = "rendition of #{of ? Colour.encoding(of.encoding).label : "HDR"} for #{numeral(peak)} cd/m2"

      def ==(other) = other.is_a?(Aim) && to_h == other.to_h
      alias_method :eql?, :==

      def hash = to_h.hash

      private

      def numeral(light) = (light % 1).zero? ? light.to_i : light
    end
  end
end
