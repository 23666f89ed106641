# frozen_string_literal: true

module Mordant
  module Rendition
    # What is corrected in all renditions of a shot at once, before the mapping.
    class ForAll < Steps::Step
      ID = "all"
      FOLLOWS = {"whole" => "the whole shot", "following" => "slow changes"}.freeze

      serves :renditions
      named :rendition_all, "All targets"
      domain :log
      parameter :brightness, label: "brightness", unit: :share, range: -0.6..0.6, neutral: 0.0,
        about: "Moves what lies about the middle in every rendition; the shot's black and its highlight stand still."
      text :levels, label: "levels of", from: FOLLOWS.keys, neutral: "whole",
        about: "What the mapping starts from: the least and greatest level of the whole shot, or those that change slowly within it."

      # In shares of the way from the shot's black to its highlight, in PQ codes: u + b u (1 - u), which rises everywhere.
      #
      # @param shares [Numo::DFloat]
      # @return [Numo::DFloat]
      def lifted(shares) = brightness.zero? ? shares : shares + shares * (1.0 - shares) * brightness

      def operations(_space) = []
    end
  end
end
