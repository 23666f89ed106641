# frozen_string_literal: true

module Mordant
  module Calibration
    module StandIn
      # A probe that is computed.
      #
      # Each of X, Y, Z is off by a normal error of its own, of variance (noise Y)^2 + floor^2: in the dark the
      # floor is most of it. What is darker than the floor or brighter than the ceiling is refused.
      class Probe
        KEYS = %w[name noise floor integration ceiling].freeze
        DEFAULTS = {"name" => "stand-in", "noise" => 0.002, "floor" => 0.003, "integration" => 0.1, "ceiling" => 5000.0}.freeze

        attr_reader :name

        # @param document [Hash] docs/probe-protocol.md has its fields
        # @param screen [#light] it stands before
        # @raise [ParameterError]
        def initialize(document = {}, screen:, clock: Clock.new, random: Random.new(1))
          Checks.held("probe", document, KEYS)
          all = DEFAULTS.merge(document)
          @name = Checks.text(all["name"], "probe.name")
          @noise = Checks.number(all["noise"], "probe.noise", 0.0..0.2)
          @floor = Checks.number(all["floor"], "probe.floor", 0.0..10.0)
          @integration = Checks.number(all["integration"], "probe.integration", 0.001..60.0)
          @ceiling = Checks.number(all["ceiling"], "probe.ceiling", 1.0..100_000.0)
          @screen, @clock, @random = screen, clock, random
        end

        # @return [Array<Float>] XYZ
        # @raise [Refused]
        def read
          @clock.wait(@integration)
          light = @screen.light(@integration)
          raise Refused.new(Refused::SATURATED) if light.max > @ceiling
          raise Refused.new(Refused::TOO_DARK) if light[1] < @floor

          light.map { |part| part + normal * Math.hypot(@noise * part, @floor) }
        end

        private

        # Source: Box and Muller 1958.
        def normal = Math.sqrt(-2 * Math.log(1 - @random.rand)) * Math.cos(2 * Math::PI * @random.rand)
      end
    end
  end
end
