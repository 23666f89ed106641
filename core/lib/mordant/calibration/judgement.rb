# frozen_string_literal: true

module Mordant
  module Calibration
    # What was read, held against what ought to be shown.
    #
    # dE is CIEDE2000 with the target's white; dL is that of L* along the greys; white's error is a distance
    # in u'v' (CIE 15:2004, 8.2.2).
    class Judgement
      # @param target [Target]
      # @param readings [Array<Reading>] of Patches::ALL_JUDGED
      def initialize(target, readings)
        @target = target
        @rows = readings.select(&:light).map { |one| row(one) }.freeze
        @readings = readings.size
        @takes = readings.sum(&:takes)
        @unread = readings.reject(&:light)
        freeze
      end

      attr_reader :rows

      # @return [Hash] figures
      def to_h
        errors, greys = @rows.map { |one| one[:de] }, @rows.select { |one| one[:kind] == "grey" }.map { |one| one[:dl].abs }
        {de2000_mean: mean(errors), de2000_max: errors.max || 0.0, dl_mean: mean(greys), dl_max: greys.max || 0.0, white_duv: white, gamut:, peak: @target.peak,
         readings: @readings, takes: @takes, unread: @unread.map { |one| {codes: one.codes, why: one.refused} }, patches: @rows}
      end

      # @param light [Array<Float>] XYZ
      # @return [Array<Float>] u', v'
      def self.uv(light)
        x, y, z = light
        whole = x + 15 * y + 3 * z
        whole.zero? ? [0.0, 0.0] : [4 * x / whole, 9 * y / whole]
      end

      private

      def row(reading)
        wanted = @target.light(reading.codes)
        was, ought = lab(reading.light), lab(wanted)
        {codes: reading.codes, kind: Patches.kind(reading.codes), light: reading.light, wanted:, de: Colour::Difference.ciede2000(ought, was), l: was[0], wanted_l: ought[0], dl: was[0] - ought[0],
         uv: Judgement.uv(reading.light), wanted_uv: Judgement.uv(wanted)}
      end

      def lab(light) = Colour::Difference.lab(Numo::DFloat[*light.map { |part| [part / @target.peak] }], white: Colour::Adaptation.xyz(@target.primaries.white)).to_a.flatten

      def white
        row = @rows.find { |one| one[:codes] == Patches::WHITE }
        row ? Math.hypot(*row[:uv].zip(row[:wanted_uv]).map { |a, b| a - b }) : 0.0
      end

      # @return [Float, nil] share of the target's gamut that the primaries cover, where the probe could read them
      def gamut
        black, *primaries = [Patches::BLACK, *Patches::PRIMARIES].map { |codes| @rows.find { |one| one[:codes] == codes }&.fetch(:light) }
        return if primaries.any?(&:nil?)

        Reach.covered(primaries.map { |light| light.zip(black || [0.0] * 3).map { |part, dark| part - dark }.then { |own| own.first(2).map { |part| part / own.sum } } }, @target.kind)
      end

      def mean(values) = values.empty? ? 0.0 : values.sum / values.size
    end
  end
end
