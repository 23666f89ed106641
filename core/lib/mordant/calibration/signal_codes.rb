# frozen_string_literal: true

module Mordant
  module Calibration
    # What a screen is sent for codes, as shares of the greatest code.
    #
    # Full range has black at 0 and reference white at the greatest code. Legal range has them at
    # 64 and 940 of 10 bits (ITU-R BT.709-6, 3.4), and room above: codes go up to 1.095.
    module SignalCodes
      BLACK = 64.0 / 1023
      WHITE = 940.0 / 1023
      RANGES = %w[full legal].freeze

      module_function

      # @param codes [Float, Numo::NArray] 0 at black, 1 at reference white
      # @return same, shares of the greatest code
      def sent(codes, range) = (range == "legal") ? codes * (WHITE - BLACK) + BLACK : codes

      # @return [Float, Numo::NArray] codes of what was sent
      def meant(sent, range) = (range == "legal") ? (sent - BLACK) / (WHITE - BLACK) : sent

      # @return [Float] the brightest code there is
      def most(range) = meant(1.0, range)
    end
  end
end
