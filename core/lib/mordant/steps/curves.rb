# frozen_string_literal: true

module Mordant
  module Steps
    # Curves through freely placed points.
    #
    # Luma, red, green and blue run over the tone axis of the working space: the luma
    # curve on every channel alike, then each channel's own. Then, on log codes with
    # luma y = w . (r, g, b), hue h (0..1 from red over green and blue) and saturation
    # s = max - min, by +c' = y' + k R(c - y)+:
    #
    #   hue against hue            R turns the difference from luma by curve(h) of a turn
    #   hue against saturation     k = (1 + curve(h)) ...
    #   saturation against itself  ... (1 + curve(s)) ...
    #   luminance against sat.     ... (1 + curve(t)), t the tone of y
    #   hue against luminance      y' = y + curve(h) * min(1, s / 0.1) * (W - B)
    class Curves < Step
      TONES = %i[luma red green blue].freeze
      # Saturation below which a hue counts less and less, code.
      FAINT = 0.1

      named :curves, "Curves"
      domain :log

      TONES.each do |name|
        points name, label: name.to_s, across: :tone, range: -0.5..1.5, rest: :diagonal, about: "Tone out for tone in#{(name == :luma) ? ", every channel alike" : ""}."
      end
      points :hue_hue, label: "hue / hue", across: :hue, range: -0.25..0.25, about: "Turns hues, in shares of the circle."
      points :hue_saturation, label: "hue / saturation", across: :hue, range: -1.0..2.0, about: "Strengthens or weakens hues; -1 leaves no colour."
      points :hue_luminance, label: "hue / luminance", across: :hue, range: -0.3..0.3, about: "Lightens or darkens hues."
      points :saturation_saturation, label: "saturation / saturation", across: :saturation, range: -1.0..2.0, about: "Strengthens or weakens colours by how strong they are."
      points :luminance_saturation, label: "luminance / saturation", across: :tone, range: -1.0..2.0, about: "Strengthens or weakens colours by how light they are."

      def operations(space)
        [*tone(space), *colour(space)]
      end

      # The mean of the three channels' curves.
      def tone_samples(space, count:)
        grey = Numo::DFloat.new(count).seq / (count - 1)
        (curve_of(:red, grey) + curve_of(:green, grey) + curve_of(:blue, grey)).to_a.map { |sum| sum / 3.0 }
      end

      private

      def curve_of(channel, tone)
        [:luma, channel].reduce(tone) { |x, name| values.fetch(name).empty? ? x : spline(name).call(x) }
      end

      def spline(name) = self.class.parameters.fetch(name).spline(values.fetch(name))

      def tone(space)
        return [] if TONES.all? { |name| values.fetch(name).empty? }

        span = space.white - space.black
        made = %i[red green blue].group_by { |name| values.fetch(name) }.transform_values do |names|
          ->(code) { curve_of(names.first, Numo::DFloat.cast((code - space.black) / span)) * span + space.black }
        end
        [Pointwise::Curve.new(%i[red green blue].map { |name| made.fetch(values.fetch(name)) }, domain: space.tabulation, fine: false)]
      end

      COLOUR = %i[hue_hue hue_saturation hue_luminance saturation_saturation luminance_saturation].freeze

      def colour(space)
        return [] if COLOUR.all? { |name| values.fetch(name).empty? }

        tables = COLOUR.to_h { |name| [name, values.fetch(name).empty? ? nil : Pointwise::UniformTable.new(spline(name), fine: false)] }
        [Pointwise::Formula.new { |planes| HueCurves.new(tables, space).call(planes) }]
      end
    end
  end
end
