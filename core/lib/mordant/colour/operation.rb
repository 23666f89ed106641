# frozen_string_literal: true

module Mordant
  module Colour
    # Parts of the pipeline by themselves, to look at or to check: each in the linear
    # space it is defined in, forwards and backwards.
    class Operation
      # id => encoding it is defined in, operations there, operations back.
      ALL = {
        "gamut-compress-1.3" => ["acescg", [ACES::GamutCompression.new], [ACES::GamutCompression.new(inverse: true)]],
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
