# frozen_string_literal: true

module Mordant
  module Colour
    # Where black and white of a signal lie among the codes: all of them (full) or
    # the middle of them (legal), 64..940 of 1023.
    #
    # Source: ITU-R BT.709-6, 5; BT.2100-2, table 9, at 10 bits.
    module SignalRange
      FULL = "full"
      LEGAL = "legal"
      ALL = [FULL, LEGAL].freeze
      LOWEST = 64.0 / 1023
      SPAN = 876.0 / 1023

      module_function

      # @param range [String]
      # @raise [ParameterError]
      def check(range, path)
        return range if ALL.include?(range)

        raise ParameterError.new(path:, expected: ALL.join(" or "), found: range)
      end

      # @param code [Float, Numo::NArray] full range: 0 at black, 1 at reference white
      # @return [Float, Numo::NArray] the same in that range, a share of the greatest code
      def encode(code, range) = (range == LEGAL) ? code * SPAN + LOWEST : code

      # @param code [Float, Numo::NArray] in that range, a share of the greatest code
      # @return [Float, Numo::NArray] full range
      def decode(code, range) = (range == LEGAL) ? (code - LOWEST) / SPAN : code

      # @return [Array] operations from codes in that range to full-range codes
      def decoding(range)
        (range == LEGAL) ? [Pointwise::Curve.new(->(code) { decode(code, range) }, domain: Pointwise::Curve::LOG)] : []
      end

      # @return [Array] operations from full-range codes to codes in that range
      def encoding(range)
        (range == LEGAL) ? [Pointwise::Curve.new(->(code) { encode(code, range) }, domain: Pointwise::Curve::LOG)] : []
      end
    end
  end
end
