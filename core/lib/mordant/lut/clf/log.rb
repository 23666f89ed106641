# frozen_string_literal: true

module Mordant
  module Lut
    class Clf
      # Logarithms: plain, with slopes and offsets on both sides, and with a straight
      # part near black.
      class Log < Node
        PLAIN = {"log10" => 10.0, "log2" => 2.0, "antiLog10" => 10.0, "antiLog2" => 2.0}.freeze
        SIDED = %w[linToLog logToLin].freeze
        CAMERA = %w[cameraLinToLog cameraLogToLin].freeze
        STYLES = PLAIN.keys + SIDED + CAMERA
        # The least value a logarithm is taken of: smallest normal 32-bit float.
        FLOOR = 2.0**-126
        NEUTRAL = {"logSideSlope" => 1.0, "logSideOffset" => 0.0, "linSideSlope" => 1.0, "linSideOffset" => 0.0}.freeze

        Parameters = Struct.new(:log_slope, :log_offset, :lin_slope, :lin_offset, :base, :break, :linear_slope) do
          # @return [Float] height of the curve at the break
          def break_height = log_slope * Math.log(lin_slope * self.break + lin_offset, base) + log_offset

          # @return [Float] slope of the straight part; the curve's own at the break where none is given
          def straight = linear_slope || log_slope * lin_slope / ((lin_slope * self.break + lin_offset) * Math.log(base))
        end

        def self.element = "Log"

        def self.parse(markup, **)
          style = markup.choice("style", STYLES)
          found = markup.children.select { |child| child.name == "LogParams" }
          return new(style:, channels: [Parameters.new(1.0, 0.0, 1.0, 0.0, PLAIN.fetch(style))] * 3) if PLAIN.key?(style)

          markup.fault("LogParams", "none") if found.empty?
          new(style:, channels: Channels.read(markup, found) { |one| parameters(one, style) })
        end

        def self.parameters(markup, style)
          values = NEUTRAL.map { |name, default| markup.number(name, default) }
          base = markup.number("base", 2.0)
          markup.fault("base above 0 and not 1", base) if base <= 0 || base == 1.0
          markup.fault("slopes other than 0", values.values_at(0, 2)) if values.values_at(0, 2).any?(&:zero?)
          return Parameters.new(*values, base) unless CAMERA.include?(style)

          made = Parameters.new(*values, base, markup.number("linSideBreak"), markup["linearSlope"] && markup.number("linearSlope"))
          markup.fault("linSideSlope * linSideBreak + linSideOffset above 0", made.break) unless (values[2] * made.break + values[3]).positive?
          made
        end

        def initialize(style:, channels:)
          @style, @channels = style, channels
          freeze
        end

        def operations
          out = %w[antiLog10 antiLog2 logToLin cameraLogToLin].include?(@style)
          functions = @channels.uniq.to_h { |one| [one, out ? ->(x) { to_linear(x, one) } : ->(x) { to_log(x, one) }] }
          [Pointwise::Curve.new(@channels.map { |one| functions.fetch(one) }, domain: out ? Pointwise::Curve::LOG : Pointwise::Curve::FLOAT)]
        end

        def attributes = {"style" => @style}

        def fill(xml)
          return if PLAIN.key?(@style)

          Channels.write(@channels) do |values, channel|
            named = NEUTRAL.keys.zip(values.to_a).to_h.merge("base" => values.base, "linSideBreak" => values.break, "linearSlope" => values.linear_slope)
            xml.LogParams({**named.compact.transform_values { |x| number(x) }, **channel})
          end
        end

        private

        def to_log(x, p)
          log = Numo::NMath.log((x * p.lin_slope + p.lin_offset).clip(FLOOR, nil)) * (p.log_slope / Math.log(p.base)) + p.log_offset
          p.break ? Colour::Piecewise.select(x > p.break, log, (x - p.break) * p.straight + p.break_height) : log
        end

        def to_linear(y, p)
          light = (Numo::NMath.exp((y - p.log_offset) * (Math.log(p.base) / p.log_slope)) - p.lin_offset) / p.lin_slope
          p.break ? Colour::Piecewise.select(y > p.break_height, light, (y - p.break_height) / p.straight + p.break) : light
        end
      end
    end
  end
end
