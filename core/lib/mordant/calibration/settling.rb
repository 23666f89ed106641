# frozen_string_literal: true

module Mordant
  module Calibration
    # How long a screen takes from black to white, and how far a probe is off each time: both are found by reading.
    class Settling
      LONGEST = 30.0 # seconds until it must have come to rest
      STILL = 8 # readings at rest
      NEAR = 0.01 # of white: the time is what it takes to come so near
      APART = 5 # standard deviations
      BLACK_FIRST = 3.0 # seconds

      # @param document [Hash] as #to_h
      # @return [Settling]
      def self.of(document) = new(**document.transform_keys(&:to_sym))

      # @param screen [#show]
      # @param probe [#read]
      # @param sent [Array<Array<Float>>] what is sent for black and white
      # @return [Settling]
      # @raise [DeviceError] of a screen that does not come to rest, or a probe that cannot read white
      def self.measured(screen, probe, clock, sent:)
        screen.show(sent.first)
        clock.wait(BLACK_FIRST)
        dark = Array.new(STILL) { read(probe) }
        screen.show(sent.last)
        began = clock.now
        seen = []
        until (rest = still(seen))
          raise DeviceError.new("screen", "its white does not come to rest within #{LONGEST.round} s; let it warm up, and begin again") if clock.now - began > LONGEST

          before = clock.now - began
          light = read(probe) or raise DeviceError.new("probe", "it reads no light; put it before the white patch, and begin again")
          seen << [(before + clock.now - began) / 2, light]
        end
        black = dark.compact
        raise DeviceError.new("probe", "white is no brighter than black; put it before this screen, and begin again") if black.any? && rest.sum { |light| light[1] } / rest.size < 4 * black.sum { |light| light[1] } / black.size

        new(seconds: time(seen, rest), noise: relative(rest), floor: (black.size > 1) ? deviation(black.map { |light| light[1] }) : 0.0, white: mean(rest), black: black.any? ? mean(black) : nil)
      end

      class << self
        private

        def read(probe)
          probe.read
        rescue Refused => e
          raise DeviceError.new("probe", "white is too bright for it; turn the screen down, or take another probe") if e.reason == Refused::SATURATED

          nil
        end

        # @return [Array, nil] the latest readings, where they are no others than at half the time: a light that goes over exponentially has
        #   then come as near as can be told
        def still(seen)
          return if seen.size < 2 * STILL

          half = seen.last.first / 2
          at = seen.index { |time, _| time >= half }.clamp(STILL / 2, seen.size - STILL)
          before, latest = [seen[at - STILL / 2, STILL], seen.last(STILL)].map { |some| some.map(&:last) }
          apart = (mean(before)[1] - mean(latest)[1]).abs
          latest if apart <= [NEAR / 10 * mean(latest)[1], APART * deviation(latest.map { |light| light[1] }) * Math.sqrt(2.0 / STILL)].max
        end

        def time(seen, rest)
          white = mean(rest)[1]
          near = [NEAR, APART * relative(rest)].max * white
          seen.reverse.take_while { |_, light| (light[1] - white).abs <= near }.last.first
        end

        def mean(lights) = lights.transpose.map { |parts| parts.sum / parts.size }

        def relative(lights) = deviation(lights.map { |light| light[1] }) / mean(lights)[1]

        # Of neighbours, so that what goes up or down meanwhile counts for little.
        # Source: von Neumann et al. 1941, the mean square successive difference.
        def deviation(values) = Math.sqrt(values.each_cons(2).sum { |a, b| (b - a)**2 } / (2.0 * (values.size - 1)))
      end

      attr_reader :seconds, :noise, :floor, :white, :black

      # @param seconds [Float] until it has come near
      # @param noise [Float] of the probe, a share
      # @param floor [Float] of the probe, cd/m2
      # @param white [Array<Float>] XYZ
      # @param black [Array<Float>, nil] XYZ; nil: too dark to be read
      def initialize(seconds:, noise:, floor:, white:, black:)
        @seconds, @noise, @floor, @white, @black = seconds, noise, floor, white, black
        freeze
      end

      REST = 5e-4 # of what comes, and of a thousandth of white: what may be left of the patch before

      # @param from [Float] cd/m2 that was shown
      # @param to [Float] cd/m2 that comes
      # @return [Float] seconds to wait, of a light that goes over exponentially
      def wait(from, to)
        left = REST * (to + white[1] / 1000)
        times = Math.log([(from - to).abs / left, 1.0].max) / Math.log(1 / NEAR)
        seconds * [times, 0.25].max
      end

      SURE = 0.03 # of L*
      MOST_TAKES = 16

      # @param light [Float] cd/m2 that is expected
      # @return [Integer] how often it is read, so that the mean is sure
      def takes(light)
        share = [light / white[1], 0.001].max
        relative = Math.hypot(noise, floor / (share * white[1]))
        slope = (share > (6.0 / 29)**3) ? 116.0 / 3 * share**(1.0 / 3) : 903.3 * share
        ((slope * relative / SURE)**2).ceil.clamp(1, MOST_TAKES)
      end

      # @return [Array<Float>] standard error of each of X, Y, Z
      def error(light, takes) = light.map { |part| Math.hypot([noise, 1e-4].max * part, [floor, 1e-4 * white[1] / 100].max) / Math.sqrt(takes) }

      def to_h = {seconds:, noise:, floor:, white:, black:}
    end
  end
end
