# frozen_string_literal: true

module Mordant
  module Steps
    class Balance
      # Three meanings of saturation s, on log codes r, g, b with the luma
      # y = w . (r, g, b), w the luminance weights of the working space:
      #
      #   plain    c' = y + s (c - y): luma stays, strong colours change as weak ones do
      #   value    c' = m - s (m - c), m = max(r, g, b): the largest channel stays, so that
      #            colours neither brighten nor darken as a lamp's colour is seen
      #   strong   c' = y + (1 + (s - 1) k) (c - y), k = min(1, (max - min) / 0.25):
      #            weak colours hardly move, those 0.25 apart and more move by s
      module SaturationModel
        # Distance of the largest from the smallest channel that counts as strong, code.
        STRONG = 0.25

        ALL = {
          "plain" => ->(s, w) { plain(s, w) }, "value" => ->(s, _) { value(s) }, "strong" => ->(s, w) { strong(s, w) }
        }.freeze

        module_function

        # @param model [String] a key of ALL
        # @return [Array] Pointwise operations
        def operations(model, saturation, weights)
          (saturation == 1.0) ? [] : [ALL.fetch(model).call(saturation, weights)]
        end

        def plain(saturation, weights)
          Pointwise::Matrix.new(Array.new(3) { |i| Array.new(3) { |j| (1 - saturation) * weights[j] + ((i == j) ? saturation : 0.0) } })
        end

        def value(saturation)
          Pointwise::Formula.new(recordable: true) do |planes|
            high = planes.reduce { |a, b| a.clip(b, nil) }
            planes.map { |plane| high - (high - plane) * saturation }
          end
        end

        def strong(saturation, weights)
          Pointwise::Formula.new(recordable: true) do |planes|
            high, low = planes.reduce { |a, b| a.clip(b, nil) }, planes.reduce { |a, b| a.clip(nil, b) }
            luma = planes.zip(weights).map { |plane, weight| plane * weight }.reduce(:+)
            scale = ((high - low) * (1 / STRONG)).clip(nil, 1.0) * (saturation - 1.0) + 1.0
            planes.map { |plane| luma + (plane - luma) * scale }
          end
        end
      end
    end
  end
end
