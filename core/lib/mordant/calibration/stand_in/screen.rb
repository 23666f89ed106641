# frozen_string_literal: true

module Mordant
  module Calibration
    module StandIn
      # A screen that is computed.
      #
      #   channel c:  l_c = v_c^gamma_c
      #   coupled:    m_c = l_c (1 - k (sum of the two others) / 2) / (1 - k)    what the others draw takes from each
      #   light:      black + (peak - black) M m                                  M: primaries to XYZ, white Y = 1
      #
      # With a coupling k of 0 channels add up. White is the peak whatever the coupling. Light goes from one patch to
      # the next exponentially, and is within 1 % of the way after the settling time. It drifts
      # by a share an hour from when the screen was switched on.
      class Screen
        KEYS = %w[name primaries white peak black gamma coupling settle drift range].freeze
        RANGES = %w[full legal legal-clipped].freeze
        DEFAULTS = {"name" => "stand-in", "primaries" => [[0.64, 0.33], [0.30, 0.60], [0.15, 0.06]], "white" => [0.3127, 0.3290], "peak" => 100.0, "black" => 0.05,
                    "gamma" => [2.4, 2.4, 2.4], "coupling" => 0.0, "settle" => 0.2, "drift" => 0.0, "range" => "full"}.freeze
        SETTLED = Math.log(100) # time constants until 1 % is left
        HOUR = 3600.0
        REMEMBERED = 16 # patches; earlier ones have long gone from any reading

        attr_reader :name

        # @param document [Hash] docs/probe-protocol.md has its fields
        # @raise [ParameterError]
        def initialize(document = {}, clock: Clock.new)
          Checks.held("screen", document, KEYS)
          read(DEFAULTS.merge(document))
          @clock, @began = clock, clock.now
          @shown = [[@began, [0.0] * 3, [0.0] * 3]] # when, what was, what comes
          show([0.0, 0.0, 0.0])
        end

        # @param sent [Array<Float>] shares of the greatest code
        def show(sent)
          now = @clock.now
          @shown << [now, at(now), emitted(sent)]
          @shown.shift if @shown.size > REMEMBERED
        end

        # @param seconds [Float]
        # @return [Array<Float>] mean XYZ over the time until now
        def light(seconds)
          now = @clock.now
          from = now - seconds
          parts = @shown.each_with_index.filter_map do |(start, *), index|
            till = [@shown[index + 1]&.first || now, now].min
            first = index.zero? ? from : [start, from].max
            sum(@shown[index], first, till) if till > first
          end
          parts = [at(now)] if parts.empty? || seconds.zero?
          total = seconds.zero? ? 1.0 : seconds
          parts.transpose.map { |all| all.sum / total * drifted(now) }
        end

        private

        def read(document)
          @name = Checks.text(document["name"], "screen.name")
          primaries = document["primaries"]
          Checks.reject("screen.primaries", "three chromaticities", primaries) unless primaries.is_a?(Array) && primaries.size == 3
          red, green, blue = primaries.each_with_index.map { |xy, index| StandIn.chromaticity(xy, "screen.primaries[#{index}]") }
          white = StandIn.chromaticity(document["white"], "screen.white")
          @peak = Checks.number(document["peak"], "screen.peak", 1.0..10_000.0)
          @black = Checks.number(document["black"], "screen.black", 0.0..(@peak / 2))
          @gamma = StandIn.three(document["gamma"], "screen.gamma", 0.5..5.0)
          @coupling = Checks.number(document["coupling"], "screen.coupling", 0.0..0.5)
          @constant = Checks.number(document["settle"], "screen.settle", 0.0..60.0) / SETTLED
          @drift = Checks.number(document["drift"], "screen.drift", -1.0..1.0)
          @range = document["range"]
          Checks.reject("screen.range", RANGES.join(", "), @range) unless RANGES.include?(@range)
          @matrix = Colour::Primaries.new(name: @name, red:, green:, blue:, white:).to_xyz
          @base = Colour::Adaptation.xyz(white).map { |part| part * @black }
        rescue ZeroDivisionError
          Checks.reject("screen.primaries", "three chromaticities that are not on one line", primaries)
        end

        def emitted(sent)
          codes = (@range == "full") ? sent : sent.map { |one| Colour::SignalRange.decode(one, "legal") }
          most = (@range == "legal") ? Colour::SignalRange.decode(1.0, "legal") : 1.0
          linear = codes.zip(@gamma).map { |code, gamma| code.clamp(0.0, most)**gamma }
          coupled = linear.map { |own| own * (1 - @coupling * (linear.sum - own) / 2) / (1 - @coupling) }
          Colour::Matrix3.apply(@matrix, coupled).zip(@base).map { |part, base| base + part * (@peak - @black) }
        end

        def drifted(now) = 1 + @drift * (now - @began) / HOUR

        # Light at a moment of the latest patch.
        def at(now)
          start, was, comes = @shown.last
          left = @constant.zero? ? 0.0 : Math.exp((start - now) / @constant)
          was.zip(comes).map { |before, after| after + (before - after) * left }
        end

        # Light of one patch, summed up over some of its time.
        def sum(patch, from, till)
          start, was, comes = patch
          tail = @constant.zero? ? 0.0 : @constant * (Math.exp((start - [from, start].max) / @constant) - Math.exp((start - till) / @constant))
          was.zip(comes).map { |before, after| after * (till - from) + (before - after) * tail }
        end
      end
    end
  end
end
