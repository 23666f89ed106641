# frozen_string_literal: true

module Mordant
  module Steps
    # Lift, gamma and gain inside another colour model, on each of its components:
    #
    #   value    of log codes: value v = max(r, g, b) on the tone axis, saturation
    #            s = max - min, hue; the way back keeps the hue
    #   opponent luma y = w . (r, g, b) on the tone axis, warm-cool u = r - b, and
    #            green-magenta v = g - (r + b) / 2
    #
    # A component x >= 0 becomes gain * (x + lift * (1 - x)) ^ (1 / gamma); the opponent
    # differences, which have signs, keep theirs and take no lift.
    class Component < Step
      MODELS = {"value" => %w[value saturation], "opponent" => ["luma", "warm-cool", "green-magenta"]}.freeze
      CHANNELS = %i[first second third].freeze

      named :component, "Component"
      domain :log

      text :model, label: "model", from: MODELS.keys, neutral: "value",
        about: "value: first is value, second saturation. opponent: first is luma, second warm against cool, third green against magenta."
      parameter :lift, label: "lift", unit: :tone, range: -0.5..0.5, neutral: 0.0, channels: CHANNELS, about: "Raises low values of a component."
      parameter :gamma, label: "gamma", unit: :exponent, range: 0.2..5.0, neutral: 1.0, channels: CHANNELS, about: "Above 1 raises middle values: of saturation, weak colours more than strong ones."
      parameter :gain, label: "gain", unit: :ratio, range: 0.0..4.0, neutral: 1.0, channels: CHANNELS, about: "Multiplies a component."

      # The model alone changes no picture.
      def neutral? = @values.except(:model).all? { |name, value| value == self.class.parameters[name].neutral_value }

      def operations(space)
        return [] if neutral?

        [Pointwise::Formula.new { |planes| (model == "value") ? by_value(planes, space) : by_difference(planes, space) }]
      end

      private

      def shaped(x, index)
        lifted = (x * -1.0 + 1.0) * lift[index] + x
        bent = (gamma[index] == 1.0) ? lifted : Colour::Piecewise.power(lifted, 1.0 / gamma[index]) + lifted.clip(nil, 0.0)
        bent * gain[index]
      end

      # Value moves all channels; saturation scales their distances from the largest.
      def by_value(planes, space)
        span = space.white - space.black
        high, low = planes.reduce { |a, b| a.clip(b, nil) }, planes.reduce { |a, b| a.clip(nil, b) }
        value = shaped((high - space.black) * (1 / span), 0) * span + space.black
        saturation = high - low
        scale = shaped(saturation, 1) / saturation.clip(1e-9, nil)
        scale = Colour::Piecewise.select(saturation <= 1e-9, scale * 0.0, scale) # grey stays grey
        planes.map { |plane| value - (high - plane) * scale }
      end

      def by_difference(planes, space)
        red, green, blue = planes
        weights, span = space.luminance_weights, space.white - space.black
        luma = planes.zip(weights).map { |plane, weight| plane * weight }.reduce(:+)
        warm, tint = signed(red - blue, 1), signed(green - (red + blue) * 0.5, 2)
        # of differences from the mean of red and blue: red +u/2, green +v, blue -u/2
        middle = shaped((luma - space.black) * (1 / span), 0) * span + space.black - warm * ((weights[0] - weights[2]) / 2) - tint * weights[1]
        [middle + warm * 0.5, middle + tint, middle - warm * 0.5]
      end

      def signed(difference, index)
        size = difference.abs
        bent = (gamma[index] == 1.0) ? size : Colour::Piecewise.power(size, 1.0 / gamma[index])
        bent * difference.sign * gain[index]
      end
    end
  end
end
