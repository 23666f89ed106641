# frozen_string_literal: true

module Mordant
  module Colour
    # The curve: part of an EncodingFile.
    module EncodingCurve
      LOG = %w[a b c d e f cut].freeze
      # Codes at which a curve must rise.
      PROBES = (0..64).map { |i| i / 64.0 }.freeze

      module_function

      # @param outline [Outline]
      # @return [#encode, #decode] rising over the codes 0..1
      # @raise [FormatError]
      def read(outline)
        curve = made(outline)
        light = curve.decode(Numo::DFloat.cast(PROBES))
        rising = light.isfinite.all? && (light[1..] - light[0...-1]).min.positive?
        rising ? curve : outline.fault("a curve whose light rises with its code over 0..1", "one that does not")
      end

      def made(outline)
        case outline.text("kind", among: %w[linear gamma log points])
        when "linear" then outline.allow("kind").then { Transfer::Linear }
        when "gamma" then gamma(outline)
        when "log" then log(outline)
        else points(outline)
        end
      end

      def gamma(outline)
        outline.allow("kind", "gamma")
        value = outline.number("gamma")
        value.between?(0.2, 5.0) ? Transfer::Power.new(value) : outline.fault("gamma: a number in 0.2..5.0", value, outline.line("gamma"))
      end

      def log(outline)
        outline.allow("kind", *LOG)
        numbers = LOG.to_h { |name| [name.to_sym, outline.number(name)] }
        fine = numbers.values_at(:a, :c, :e).all?(&:positive?) && (numbers[:a] * numbers[:cut] + numbers[:b]).positive?
        outline.fault("a, c, e above 0 and a * cut + b above 0", numbers.to_s) unless fine
        Transfer::LogToe.new(**numbers)
      end

      def points(outline)
        outline.allow("kind", "points")
        Transfer::Sampled.new(outline.rows("points", 2))
      rescue ParameterError => e
        outline.fault("points: #{e.expected}", e.found, outline.line("points"))
      end

      private_class_method :made, :gamma, :log, :points
    end
  end
end
