# frozen_string_literal: true

module Mordant
  module Lut
    class Clf
      # A power, plain or with a straight part near black.
      class Exponent < Node
        BASIC = %w[basicFwd basicRev basicMirrorFwd basicMirrorRev basicPassThruFwd basicPassThruRev].freeze
        MONITOR = %w[monCurveFwd monCurveRev monCurveMirrorFwd monCurveMirrorRev].freeze
        STYLES = BASIC + MONITOR

        def self.element = "Exponent"

        def self.parse(markup, **)
          style = markup.choice("style", STYLES)
          found = markup.children.select { |child| child.name == "ExponentParams" }
          markup.fault("ExponentParams", "none") if found.empty?
          new(style:, channels: Channels.read(markup, found) { |one| parameters(one, style) })
        end

        # @return [Array<Float>] exponent and offset
        def self.parameters(markup, style)
          exponent = markup.number("exponent")
          monitor = MONITOR.include?(style)
          allowed = monitor ? 1.0..10.0 : 0.01..100.0
          markup.fault("exponent in #{allowed}", exponent) unless allowed.cover?(exponent)
          offset = monitor ? markup.number("offset") : 0.0
          markup.fault("offset in 0.0..0.9", offset) unless offset.between?(0.0, 0.9)
          [exponent, offset]
        end

        # @param channels [Array<Array<Float>>] exponent and offset of red, green, blue
        def initialize(style:, channels:)
          @style, @channels = style, channels
          freeze
        end

        def operations = [Pointwise::Curve.new(Channels.functions(@channels) { |exponent, offset| function(exponent, offset) })]

        def attributes = {"style" => @style}

        def fill(xml)
          Channels.write(@channels) do |(exponent, offset), channel|
            xml.ExponentParams({"exponent" => number(exponent), "offset" => MONITOR.include?(@style) ? number(offset) : nil, **channel}.compact)
          end
        end

        private

        def function(exponent, offset)
          reverse = @style.end_with?("Rev")
          curve = if MONITOR.include?(@style)
            monitor(exponent, offset, reverse)
          else
            ->(x) { Colour::Piecewise.power(x, reverse ? 1 / exponent : exponent) }
          end
          return ->(x) { curve.call(x.abs) * x.sign } if @style.include?("Mirror")
          return ->(x) { Colour::Piecewise.select(x > 0.0, curve.call(x), x) } if @style.include?("PassThru")

          curve
        end

        # A straight line to where it touches the power.
        def monitor(exponent, offset, reverse)
          return ->(x) { Colour::Piecewise.power(x, reverse ? 1 / exponent : exponent) } if exponent == 1.0 || offset.zero?

          slope = (exponent - 1) / offset * (exponent * offset / ((exponent - 1) * (1 + offset)))**exponent
          foot = offset / (exponent - 1)
          return ->(x) { Colour::Piecewise.select(x >= foot, Colour::Piecewise.power((x + offset) / (1 + offset), exponent), x * slope) } unless reverse

          ->(y) { Colour::Piecewise.select(y >= foot * slope, Colour::Piecewise.power(y, 1 / exponent) * (1 + offset) - offset, y / slope) }
        end
      end
    end
  end
end
