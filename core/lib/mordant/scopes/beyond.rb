# frozen_string_literal: true

module Mordant
  module Scopes
    # Colours of a view that lie beyond P3-D65, of views whose primaries are wider: few screens show them.
    #
    # Source: SMPTE EG 432-1 for the primaries, with the white of D65. A colour is beyond them where the least of its light in them is below none by
    # more than LEAST of the greatest.
    module Beyond
      LEAST = 0.005
      DARK = 0.0002 # of 100 cd/m2: darker than that no colour is told
      COLOUR = [0.52, 0.74, 0.28].freeze # of the mark, display codes
      INTO = Colour::Matrix3.inverse(Colour::Primaries::P3_D65.to_xyz).freeze

      module_function

      # @param encoding [String] id
      # @return [Boolean] it holds colours beyond P3-D65
      def wider?(encoding)
        found = Colour.encoding(encoding)
        !found.scene? && !found.primaries.nil? && Colour::Matrix3.multiply(INTO, found.primaries.to_xyz).flatten.min < -LEAST
      end

      # @param signal [Signal]
      # @return [Numo::SFloat] [n], 1 where a colour lies beyond, else 0
      def places(signal)
        return Numo::SFloat.zeros(signal.size) unless wider?(signal.encoding)

        xyz = Pointwise::Chain.new(Colour.encoding(signal.encoding).decoding).call(Numo::NArray.vstack([signal.red, signal.green, signal.blue]))
        light = Pointwise::Chain.new([Pointwise::Matrix.new(INTO)]).call(xyz)
        least, greatest = light.min(axis: 0), light.max(axis: 0)
        Numo::SFloat.cast((least < greatest * -LEAST) & (greatest > DARK))
      end

      # @param signal [Signal]
      # @return [Float] share of the pixels
      def share(signal) = places(signal).mean.round(6)

      # @param drawn [Frame] codes of a display, on the signal's raster
      # @param signal [Signal]
      # @return [Frame] hatched there
      def paint(drawn, signal) = Mark.paint(drawn, places(signal) * Numo::SFloat.cast(Mark.stripes(drawn)), COLOUR)
    end
  end
end
