# frozen_string_literal: true

module Mordant
  module Colour
    # Parts of the pipeline by themselves, to look at or to check: each in the linear
    # space it is defined in, forwards and backwards.
    class Operation
      # Source: Academy LMT.Academy.BlueLightArtifactFix.ctl.
      BLUE_LIGHT = [[0.9404372683, -0.0183068787, 0.0778696104], [0.0083786969, 0.8286599939, 0.1629613092], [0.0005471261, -0.0008833746, 1.0003362486]].freeze

      # id => encoding it is defined in, operations there, operations back.
      ALL = {
        "gamut-compress-1.3" => ["acescg", [ACES::GamutCompression.new], [ACES::GamutCompression.new(inverse: true)]],
        "blue-light-artifact-fix" => ["aces2065-1", [Pointwise::Matrix.new(BLUE_LIGHT)], [Pointwise::Matrix.new(Matrix3.inverse(BLUE_LIGHT))]],
        "glow" => ["aces2065-1", [ACES::Sweeteners.new(reddens: false)], [Pointwise::Formula.new { |planes| ACES::InverseSweeteners.darken(planes) }]],
        "red-modifier" => ["aces2065-1", [ACES::Sweeteners.new(glows: false)], [Pointwise::Formula.new { |planes| ACES::InverseSweeteners.unredden(planes) }]],
        "dark-to-dim" => ["acescg", [ACES::Surround.new], [ACES::Surround.new(ACES::Surround::INVERSE)]]
      }.freeze

      # @param id [String] a key of ALL
      # @param from [String, nil] encoding of the values, going in and coming out; nil: the one it is defined in
      # @param inverse [Boolean]
      # @return [Pointwise::Chain]
      # @raise [UnknownIdError, ParameterError]
      def self.chain(id, from: nil, inverse: false)
        own, forward, backward = ALL.fetch(id) { raise UnknownIdError.new("operation", id, ALL.keys) }
        from ||= own
        there = Conversion.new(from:, to: own).operations
        back = Conversion.new(from: own, to: from).operations
        Pointwise::Chain.new([*there, *(inverse ? backward : forward), *back])
      end
    end
  end
end
