# frozen_string_literal: true

module Mordant
  module Steps
    # The first correction of a shot: exposure, white balance, black, contrast,
    # lift/gamma/gain/offset and saturation.
    #
    # For a channel c of log code x, in this order:
    #
    #   light    l = 2^(exposure + printer_c / 12) * decode(x)
    #   white    l = b_c + (l - b_c) * w_c              temperature and tint, below
    #   offset   x = encode(l) + offset_c * (W - B)
    #   contrast x = p + (x - p) * contrast            p = encode(0.18 * 2^pivot)
    #   tone     t = (x - B) / (W - B)
    #   points   t = (t - black) / (white - black)
    #   levels   t = gain_c * (t + lift_c * (1 - t))
    #   gamma    t = t ^ (1 / gamma_c) where t > 0
    #
    # with B, W the ends of the working space's tone axis, and then saturation over
    # the channels, see SaturationModel. A channel's lift, offset and printer light
    # are the master's plus its own, gain and gamma the master's times its own.
    #
    # Temperature and tint are gains of light about b_c, the light that the rest
    # of the step takes to t = 0, so that a black once set stays where it is:
    # red over blue by 0.02 stops a point of temperature, green over red and
    # blue by 0.02 stops a point of tint, grey keeping its luminance.
    class Balance < Step
      CHANNELS = %i[master red green blue].freeze
      STOPS_A_POINT = 0.02
      # Printer lights: 0.025 of log exposure a point, 0.3 a stop.
      POINTS_A_STOP = 12.0

      named :balance, "Balance"
      domain :log

      parameter :exposure, label: "exposure", unit: :stops, range: -10.0..10.0, neutral: 0.0,
        about: "Light before everything else; +1 st is twice as much."
      parameter :contrast, label: "contrast", unit: :ratio, range: 0.1..5.0, neutral: 1.0,
        about: "Slope of the tone scale about the pivot."
      parameter :pivot, label: "pivot", unit: :stops, range: -8.0..8.0, neutral: 0.0,
        about: "Tone that contrast leaves where it is, from mid grey."
      parameter :temperature, label: "temperature", unit: :points, range: -200.0..200.0, neutral: 0.0,
        about: "Red against blue; the black set stays where it is."
      parameter :tint, label: "tint", unit: :points, range: -200.0..200.0, neutral: 0.0,
        about: "Green against magenta; the black set stays where it is."
      parameter :saturation, label: "saturation", unit: :ratio, range: 0.0..4.0, neutral: 1.0,
        about: "Distance from grey; 0 leaves none."
      text :model, label: "saturation acts", from: SaturationModel::ALL.keys, neutral: "plain",
        about: "Plain: about luma. Value: the largest channel stays. Strong: on strong colours more than on weak ones."
      parameter :black, label: "black point", unit: :tone, range: -0.5..0.8, neutral: 0.0,
        about: "Tone that becomes black."
      parameter :white, label: "white point", unit: :tone, range: 0.1..2.0, neutral: 1.0,
        about: "Tone that becomes white."
      parameter :printer, label: "printer", unit: :points, range: -60.0..60.0, neutral: 0.0, channels: CHANNELS,
        about: "Printer lights; 12 points are a stop more light."
      parameter :lift, label: "lift", unit: :tone, range: -0.5..0.5, neutral: 0.0, channels: CHANNELS,
        about: "Raises black, leaves white."
      parameter :gamma, label: "gamma", unit: :exponent, range: 0.2..5.0, neutral: 1.0, channels: CHANNELS,
        about: "Bends the middle, leaves black and white."
      parameter :gain, label: "gain", unit: :ratio, range: 0.0..4.0, neutral: 1.0, channels: CHANNELS,
        about: "Raises white, leaves black."
      parameter :offset, label: "offset", unit: :tone, range: -1.0..1.0, neutral: 0.0, channels: CHANNELS,
        about: "Moves every tone alike."

      # The staves: what a handle adds to the numbers of a parameter, in the order
      # of CHANNELS, for each unit it is moved. "at" is its place on the tone axis.
      DIRECTIONS = {light: [1.0, 0.0, 0.0, 0.0], warmth: [0.0, 0.5, 0.0, -0.5], tint: [0.0, -0.25, 0.5, -0.25]}.freeze
      handles(DIRECTIONS.flat_map do |stave, direction|
        [[:low, :lift, 0.1], [:middle, :gamma, 0.5], [:high, :gain, 0.9], [:overall, :offset, nil]]
          .map { |zone, parameter, at| {stave: stave, zone: zone, parameter: parameter, direction: direction, at: at} }
      end)

      # Distance the white point keeps above the black point, tone.
      LEAST_RANGE = 0.05

      def agree(path)
        return if white - black >= LEAST_RANGE

        raise ParameterError.new(path: "#{path}.white", expected: "a white point #{LEAST_RANGE * 100} % or more above the black point, #{black}", found: white)
      end

      def operations(space)
        return [] if neutral?

        [*tone(space), *colour(space)]
      end

      # These alone change no picture.
      IDLE = %i[pivot model].freeze

      # Neither these alone nor anything neutral changes a picture.
      def neutral?
        @values.all? { |name, value| IDLE.include?(name) || value == self.class.parameters[name].neutral_value }
      end

      # The mean of the three channels' curves.
      def tone_samples(space, count:)
        span = space.white - space.black
        grey = Numo::DFloat.new(count).seq / (count - 1) * span + space.black
        made = Pointwise::Chain.new(tone(space)).exact(Numo::NArray.vstack([grey, grey, grey])).mean(0)
        ((made - space.black) / span).to_a
      end

      # @return [Array<Float>] stops of red, green and blue before the white gains
      def exposures = Array.new(3) { |channel| exposure + (printer[0] + printer[channel + 1]) / POINTS_A_STOP }

      # @return [Array<Float>] light of red, green and blue, after exposure, that temperature
      #   and tint leave where it is
      def anchors(space) = curves(space).map(&:black_light)

      private

      # @return [Array<ToneCurve>] of red, green and blue
      def curves(space)
        gains, light = white_gains(space), exposures
        at = pivot.zero? ? space.middle : space.code_at(pivot)
        Array.new(3) { |channel| ToneCurve.new(space:, pivot: at, contrast:, exposure: light[channel], white: gains[channel], **channel_values(channel)) }
      end

      def tone(space)
        apart = [*IDLE, :saturation]
        return [] if self.class.neutral.values.except(*apart) == values.except(*apart)

        made = curves(space)
        made = made.first if made.uniq.size == 1
        [Pointwise::Curve.new(made, domain: space.tabulation, fine: false)]
      end

      def channel_values(channel)
        {black_point: black, white_point: white, lift: lift[0] + lift[channel + 1], offset: offset[0] + offset[channel + 1],
         gain: gain[0] * gain[channel + 1], gamma: gamma[0] * gamma[channel + 1]}
      end

      def white_gains(space)
        red_blue = temperature * STOPS_A_POINT / 2
        green = tint * STOPS_A_POINT
        gains = [red_blue - green / 3, green * 2 / 3, -red_blue - green / 3].map { |stops| 2.0**stops }
        luminance = gains.zip(space.luminance_weights).sum { |gain, weight| gain * weight }
        gains.map { |gain| gain / luminance }
      end

      def colour(space) = SaturationModel.operations(model, saturation, space.luminance_weights)
    end
  end
end
