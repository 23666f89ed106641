# frozen_string_literal: true

module Mordant
  module Deliver
    # The brightest pixel and the mean of a frame, by the brightest of red, green and blue.
    #
    # Source: CTA-861.3, maximum content light level and frame-average light level; both are
    # of ST 2084 codes.
    module LightLevels
      UNIT = 100.0 # cd/m2 of linear 1.0
      PLACES = 4096 # of a table of the curve

      module_function

      # @param encoding [String]
      # @return [Boolean] it has levels
      def of?(encoding) = Colour.encoding(encoding).transfer == Colour::Transfer::PQ

      # @param frame [Frame] codes
      # @return [Array<Float>, nil] highest and mean cd/m2; nil of other encodings
      def of(frame)
        return unless of?(frame.encoding)

        brightest = frame.rgb.max(axis: 0).clip(0.0, 1.0)
        nits = table[Numo::Int32.cast(brightest * (PLACES - 1) + 0.5)].dup
        [exact(brightest.max), nits.mean.to_f]
      end

      # @param levels [Array<Array<Float>>] of each frame
      # @return [Hash, nil] of all: cll and fall in cd/m2
      def over(levels) = levels.empty? ? nil : {cll: levels.map(&:first).max, fall: levels.map(&:last).max}

      def exact(code) = Colour::Transfer::PQ.decode(Numo::DFloat[code])[0] * UNIT

      def table = @table ||= Numo::SFloat.cast(Colour::Transfer::PQ.decode(Numo::DFloat.new(PLACES).seq / (PLACES - 1)) * UNIT)
    end
  end
end
