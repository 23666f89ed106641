# frozen_string_literal: true

module Mordant
  module Steps
    # A CDL as it came: slope, offset, power and saturation, on log codes of the working
    # space or on those of the encoding it was made in. See Colour::CDL.
    class CDL < Step
      CHANNELS = %i[red green blue].freeze

      named :cdl, "CDL"
      domain :log

      parameter :slope, label: "slope", unit: :ratio, range: 0.0..16.0, neutral: 1.0, channels: CHANNELS, about: "Multiplies."
      parameter :offset, label: "offset", unit: :ratio, range: -8.0..8.0, neutral: 0.0, channels: CHANNELS, about: "Adds."
      parameter :power, label: "power", unit: :exponent, range: 0.05..16.0, neutral: 1.0, channels: CHANNELS, about: "Raises to a power."
      parameter :saturation, label: "saturation", unit: :ratio, range: 0.0..8.0, neutral: 1.0, about: "Distance from luma; 0 leaves none."
      text :within, label: "made in", from: :encoding, neutral: "", about: "The encoding the numbers were set in; empty: the working space."
      text :limits, label: "limits", from: %w[open clamped], neutral: "open", about: "Clamped: held to 0..1 as version 1.2 asks; open: nothing is lost."

      # @param cdl [Colour::CDL]
      # @return [Hash] parameters of a recipe's document
      def self.parameters_of(cdl)
        {"slope" => cdl.slope, "offset" => cdl.offset, "power" => cdl.power, "saturation" => cdl.saturation}
      end

      def neutral? = cdl == Colour::CDL.new

      def operations(space)
        return [] if neutral?

        there = within.empty? ? [] : Colour::Conversion.new(from: space.log, to: within).operations
        back = within.empty? ? [] : Colour::Conversion.new(from: within, to: space.log).operations
        [*there, *cdl.operations(clamp: limits == "clamped"), *back]
      end

      # @return [Colour::CDL]
      def cdl = Colour::CDL.new(slope:, offset:, power:, saturation:)
    end
  end
end
