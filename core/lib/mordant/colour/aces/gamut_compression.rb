# frozen_string_literal: true

module Mordant
  module Colour
    module ACES
      # The reference gamut compression, on AP1 light.
      #
      # Source: Academy TB-2021-001, reference gamut compression 1.3
      # (LMT.Academy.ReferenceGamutCompress.ctl).
      class GamutCompression < Colour::GamutCompression
        # Cyan, magenta, yellow.
        LIMIT = [1.147, 1.264, 1.312].freeze
        THRESHOLD = [0.815, 0.803, 0.880].freeze
        POWER = 1.2

        # @param inverse [Boolean]
        def initialize(inverse: false) = super(limit: LIMIT, threshold: THRESHOLD, power: POWER, inverse:)
      end
    end
  end
end
