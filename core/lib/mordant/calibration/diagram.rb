# frozen_string_literal: true

module Mordant
  module Calibration
    # The CIE 1976 chromaticity diagram: what lies on it, in u'v'.
    module Diagram
      # xy of the spectrum, 400 to 700 nm. Source: CIE 15:2004, T.4, 2 degree observer, rounded to four places.
      SPECTRUM = [
        [0.1733, 0.0048], [0.1714, 0.0051], [0.1644, 0.0109], [0.1566, 0.0177], [0.1440, 0.0297], [0.1241, 0.0578], [0.1096, 0.0868], [0.0913, 0.1327], [0.0687, 0.2007],
        [0.0454, 0.2950], [0.0235, 0.4127], [0.0082, 0.5384], [0.0039, 0.6548], [0.0139, 0.7502], [0.0389, 0.8120], [0.0743, 0.8338], [0.1142, 0.8262], [0.1547, 0.8059],
        [0.1929, 0.7816], [0.2296, 0.7543], [0.2658, 0.7243], [0.3016, 0.6923], [0.3731, 0.6245], [0.4441, 0.5547], [0.5125, 0.4866], [0.5752, 0.4242], [0.6270, 0.3725],
        [0.6658, 0.3340], [0.6915, 0.3083], [0.7190, 0.2809], [0.7347, 0.2653]
      ].freeze

      module_function

      # @param xy [Array<Float>]
      # @return [Array<Float>] u', v'
      def uv(xy) = Judgement.uv(Colour::Adaptation.xyz(xy))

      # @return [Array<Array<Float>>] u', v', the line of purples closes it
      def spectrum = SPECTRUM.map { |xy| uv(xy) }

      # @param kind [Target::Kind]
      # @return [Array<Array<Float>>] u', v' of red, green, blue and white
      def corners(kind) = [kind.primaries.red, kind.primaries.green, kind.primaries.blue, kind.primaries.white].map { |xy| uv(xy) }
    end
  end
end
