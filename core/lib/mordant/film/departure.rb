# frozen_string_literal: true

module Mordant
  module Film
    # The neutral chain that a film look departs from: print density over log exposure, from 0 at mid grey.
    #
    #   N(h) = M - (l h + (m - l) (s(h - a) - s(-a)) - (m - u) (s(h - b) - s(-b)))
    #
    # with s the bend of Characteristic, M the density of mid grey. Its slope is m about mid grey, and goes over to l below
    # a and u above b, so that it bends much as the standard rendering does, and goes on as straight lines beyond: it has an
    # inverse everywhere. A chain C of materials changes light by N^-1(C(h)), so that toe and shoulder of the rendering are not
    # put on a second time, and a chain that is N changes nothing.
    #
    # A negative that is none is a straight line of SLOPE; a print that is none is what makes N of that.
    module Departure
      MIDDLE = 1.0 # density of mid grey above the print's base
      SLOPE = 0.6 # of the straight negative
      STEEP = 1.55 # m
      LOW = 0.5 # l
      HIGH = 0.3 # u
      BENDS = [-1.5, 0.35].freeze # a, b
      WIDTHS = [0.3, 0.25].freeze
      FIRST = -6.0 # densities of the table of the inverse
      LAST = 14.0
      NODES = 16_001

      module_function

      # @param exposure [Numo::DFloat] log exposure from mid grey
      # @return [Numo::DFloat] print density above base
      def density(exposure)
        low, high = BENDS.zip(WIDTHS).map { |at, width| Film.bend(exposure - at, width) - Film.bend(Numo::DFloat[-at], width)[0] }
        (exposure * LOW + low * (STEEP - LOW) - high * (STEEP - HIGH)) * -1.0 + MIDDLE
      end

      # @param density [Numo::DFloat] print density above base
      # @return [Numo::DFloat] log exposure from mid grey
      def exposure(density)
        place = ((density - FIRST) * ((NODES - 1) / (LAST - FIRST)))
        low = place.floor.clip(0, NODES - 2)
        index = Numo::Int64.cast(low)
        table[index] + (table[index + 1] - table[index]) * (place - low)
      end

      # Log exposures at equal distances of density, each halved towards.
      def table
        @table ||= begin
          wanted = Numo::DFloat.new(NODES).seq * ((LAST - FIRST) / (NODES - 1)) + FIRST
          low, high = Numo::DFloat.new(NODES).fill(-40.0), Numo::DFloat.new(NODES).fill(40.0)
          60.times do
            middle = (low + high) * 0.5
            above = Numo::DFloat.cast(density(middle) > wanted)
            low = low * (above * -1.0 + 1.0) + middle * above
            high = high * above + middle * (above * -1.0 + 1.0)
          end
          (low + high) * 0.5
        end
      end
    end
  end
end
