# frozen_string_literal: true

module Mordant
  module Scopes
    # Whether a picture's black and white just touch chosen levels: guides to set a look by.
    #
    # Of the channel that goes furthest, the share of pixels at the guide or beyond it: below FEW it is not
    # reached, above MANY it is passed.
    class Touch
      FEW = 0.0005
      MANY = 0.01
      ENDS = %w[black white].freeze
      CHANNELS = %i[red green blue].freeze
      CODES = 1023.0

      # @param places [Object] of a request: of ENDS, shares of the full range; nil: none
      # @return [Hash]
      # @raise [ParameterError]
      def self.checked(places)
        places ||= {}
        fine = places.is_a?(Hash) && (places.keys - ENDS).empty? && places.values.compact.all? { |place| place.is_a?(Numeric) && place.real? && place.between?(0, 1) }
        fine ? places.compact : raise(ParameterError.new(path: "guides", expected: "black and white, each 0..1", found: places))
      end

      # @param signal [Signal]
      # @param places [Hash] as checked
      def initialize(signal, places)
        @signal, @places = signal, places
      end

      # @return [Hash{String => Hash}] of each end: place, beyond (share of the pixels), state ("under", "met", "past") and codes of
      #   10 bits from the guide to where MANY of the pixels lie beyond, above 0 where it is not reached
      def to_h = @places.to_h { |side, place| [side, reading(side == "black", place)] }

      private

      def reading(black, place)
        code = (place * CODES).round
        beyond, off = counted.map { |sums| [share(sums, code, black), distance(sums, code, black)] }.transpose
        most = beyond.max
        state = [["under", most < FEW], ["past", most > MANY], ["met", true]].find(&:last).first
        {place:, beyond: most.round(5), state:, codes: off.min}
      end

      # @return [Array<Numo::DFloat>] [1024], shares of the pixels at a code or below it
      def counted = @counted ||= CHANNELS.map { |channel| Numo::DFloat.cast(Histogram.counts(@signal, channel)).cumsum / @signal.size }

      def share(sums, code, black)
        return sums[code] if black

        code.zero? ? 1.0 : 1.0 - sums[code - 1]
      end

      def distance(sums, code, black)
        black ? (sums > MANY).where[0] - code : code - ((sums >= 1 - MANY).where[0] || CODES.to_i)
      end
    end
  end
end
