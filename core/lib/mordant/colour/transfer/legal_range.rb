# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # A curve whose codes are published for the legal range, on full-range
      # codes; beyond the ends the curve goes on. See SignalRange.
      class LegalRange
        # @param curve [#encode, #decode] over shares of the legal range
        def initialize(curve)
          @curve = curve
          freeze
        end

        def encode(linear) = @curve.encode(linear) * SignalRange::SPAN + SignalRange::LOWEST

        def decode(code) = @curve.decode((code - SignalRange::LOWEST) / SignalRange::SPAN)
      end
    end
  end
end
