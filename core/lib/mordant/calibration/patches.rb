# frozen_string_literal: true

module Mordant
  module Calibration
    # Codes that are shown and read.
    module Patches
      BLACK, WHITE = [[0.0] * 3, [1.0] * 3].map(&:freeze)
      GREYS = [0.0, 0.05, 0.1, 0.15, 0.2, 0.25, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1.0].map { |code| [code] * 3 }.freeze
      PRIMARIES = [[1.0, 0.0, 0.0], [0.0, 1.0, 0.0], [0.0, 0.0, 1.0]].freeze
      SECONDARIES = [[0.0, 1.0, 1.0], [1.0, 0.0, 1.0], [1.0, 1.0, 0.0]].freeze
      # Twelve hues, each light and pale, and deep: skin, wood, straw, leaf, sea, sky and dusk lie among them.
      SPREAD = [
        [0.82, 0.55, 0.50], [0.50, 0.14, 0.12], [0.84, 0.64, 0.50], [0.52, 0.28, 0.14], [0.86, 0.78, 0.52], [0.54, 0.44, 0.14],
        [0.74, 0.82, 0.50], [0.36, 0.48, 0.16], [0.56, 0.80, 0.52], [0.16, 0.46, 0.18], [0.50, 0.80, 0.66], [0.12, 0.46, 0.34],
        [0.50, 0.78, 0.82], [0.14, 0.42, 0.50], [0.52, 0.68, 0.86], [0.14, 0.28, 0.54], [0.54, 0.56, 0.84], [0.16, 0.16, 0.52],
        [0.68, 0.54, 0.84], [0.32, 0.14, 0.50], [0.82, 0.54, 0.78], [0.48, 0.14, 0.42], [0.84, 0.52, 0.64], [0.52, 0.12, 0.26]
      ].freeze
      # Read before and after.
      JUDGED = {"grey" => GREYS, "primary" => PRIMARIES, "secondary" => SECONDARIES, "spread" => SPREAD}.freeze
      ALL_JUDGED = JUDGED.values.flatten(1).freeze

      STEPS = 16 # of a channel
      GRID = [0.25, 0.5, 0.75, 1.0].freeze

      module_function

      # @param most [Float] brightest code
      # @return [Array<Float>] levels at which channels and greys are read
      def levels(most) = (1..STEPS).map { |step| step.to_f / STEPS } + ((most > 1.0) ? [most] : [])

      # Greys, then each channel alone, then two at a time.
      #
      # @return [Array<Array<Float>>]
      def channels(most) = [BLACK, *levels(most).map { |level| [level] * 3 }, *3.times.flat_map { |channel| levels(most).map { |level| alone(channel, level) } }, *SECONDARIES]

      # Two and three channels at a time, read where channels do not add up.
      #
      # @return [Array<Array<Float>>]
      def mixtures
        @mixtures ||= [0.0, *GRID].repeated_permutation(3).reject { |codes| codes.count(0.0) > 1 || codes.uniq.size == 1 || SECONDARIES.include?(codes) }
      end

      def alone(channel, level) = 3.times.map { |one| (one == channel) ? level : 0.0 }

      # @return [String] what a patch is of the judged ones
      def kind(codes) = JUDGED.find { |_, all| all.include?(codes) }&.first || "mixed"
    end
  end
end
