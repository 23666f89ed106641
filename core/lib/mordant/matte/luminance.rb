# frozen_string_literal: true

module Mordant
  module Matte
    # A range of luma, on the tone axis of the working space: 0 is no light, 1 white. Each end
    # falls over a softness of its own, half of it on either side.
    class Luminance < Contributor
      include Seen

      named :luminance, "Luminance"

      parameter :low, label: "from", unit: :tone, range: -1.0..4.0, neutral: 0.5, about: "Where the range begins."
      parameter :high, label: "to", unit: :tone, range: -1.0..4.0, neutral: 4.0, about: "Where it ends; far above white takes all that is brighter."
      parameter :low_softness, label: "soft below", unit: :tone, range: 0.0..2.0, neutral: 0.1, about: "How wide its lower end falls."
      parameter :high_softness, label: "soft above", unit: :tone, range: 0.0..2.0, neutral: 0.1, about: "How wide its upper end falls."

      # @raise [ParameterError] of a range that ends before it begins
      def agree(path)
        raise ParameterError.new(path: "#{path}.high", expected: "at least #{low}, where the range begins", found: high) if high < low
      end

      ROOM = 0.03

      # @see Contributor#after_pick
      def picked(axes, act)
        found = Ends.of(axes.lightness, ROOM)
        found = Ends.new(found.low - low_softness / 2, found.high + high_softness / 2) unless act == "fewer"
        own = Ends.new(low, high)
        made = case act
        when "fresh" then found
        when "more" then own.with(found)
        else own.within([found.low, 0.0].min, [found.high, 1.2].max).without(found, [low_softness / 2, high_softness / 2]).min_by(&:first)&.last || own
        end
        made.held(-1.0..4.0).then { |ends| {low: ends.low, high: ends.high} }
      end

      def weights_of(axes)
        tone = axes.lightness
        Matte.smooth((tone - low) / [low_softness, SHARPEST].max + 0.5) * Matte.smooth((tone * -1.0 + high) / [high_softness, SHARPEST].max + 0.5)
      end
    end
  end
end
