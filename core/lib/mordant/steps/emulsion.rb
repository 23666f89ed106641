# frozen_string_literal: true

module Mordant
  module Steps
    # A negative, developed and printed; see Film::Chain for what becomes of light, and Film::Departure for what that is
    # compared with. A strength below 1 goes a part of the way in log exposure, not halfway between two pictures: in log codes of
    # a scene, and where the working space has others, see #partly.
    class Emulsion < Step
      CHANNELS = %i[master red green blue].freeze

      named :emulsion, "Emulsion"
      circuit :film
      domain :log

      text :negative, label: "negative", from: :negative, neutral: "", about: "The material that is exposed; none: a straight line."
      parameter :exposure, label: "exposure", unit: :stops, range: -6.0..6.0, neutral: 0.0, about: "Light on the negative; the print keeps its own."
      parameter :warmth, label: "light balance", unit: :points, range: -60.0..60.0, neutral: 0.0, about: "Red against blue light on the negative; 12 points are a stop between them."
      parameter :push, label: "push", unit: :stops, range: -2.0..3.0, neutral: 0.0, about: "Developed longer, or shorter below 0: steeper and faster."
      parameter :flash, label: "flash", unit: :share, range: 0.0..0.5, neutral: 0.0, about: "Even light before the picture, as a share of mid grey's: opens shadows."
      parameter :coupling, label: "coupling", unit: :ratio, range: 0.0..2.0, neutral: 1.0, about: "How much layers hold each other back in development; 1 as the material has it."
      parameter :speed, label: "speed", unit: :stops, range: -3.0..3.0, neutral: 0.0, about: "A faster material, printed so that mid grey stays: more of its curve below, less above."
      parameter :toe, label: "toe", unit: :stops, range: -2.0..2.0, neutral: 0.0, about: "How much later the negative's curve begins to rise; below 0 earlier."
      parameter :slope, label: "slope", unit: :ratio, range: 0.5..2.0, neutral: 1.0, about: "Of the negative's straight line, times what the material has."
      parameter :shoulder, label: "shoulder", unit: :stops, range: -3.0..3.0, neutral: 0.0, about: "How much later the negative's curve flattens; below 0 earlier."
      text :print, label: "print", from: :print, neutral: "", about: "The material that is printed on; none: all that the negative holds."
      parameter :points, label: "printer lights", unit: :points, range: -25.0..25.0, neutral: 0.0, channels: CHANNELS, about: "0.025 of log exposure a point; more light prints darker."
      parameter :print_exposure, label: "print exposure", unit: :stops, range: -4.0..4.0, neutral: 0.0, about: "Light through the negative; more prints darker. What keeps mid grey is in it already."
      parameter :limits, label: "print limits", unit: :share, range: 0.0..1.0, neutral: 1.0, about: "How far the print's own black and white hold; 0 lets both go on."
      parameter :silver, label: "silver", unit: :share, range: 0.0..1.0, neutral: 0.0, about: "Silver that is left in the print: denser and less coloured; mid grey stays."

      # These alone change no picture: they are a material's.
      IDLE = %i[negative coupling speed toe shoulder print limits].freeze

      def neutral? = negative.empty? && print.empty? && values.except(*IDLE).all? { |name, value| value == self.class.parameters[name].neutral_value }

      # @raise [MediaError] of a material that is not there; FormatError of a faulty one
      def operations(space)
        return [] if neutral?

        chain.operations(space)
      end

      # By way of log codes where those of the working space are light, and of log exposures where they are a display's.
      def partly(space, share)
        return chain.partly(space, share) unless space.scene?
        return unless Colour::Encoding.fetch(space.log).linear?

        log = Colour::WorkingSpace.fetch("acescct")
        to, from = [[space.log, log.log], [log.log, space.log]].map { |a, b| Colour::Conversion.new(from: a, to: b).operations }
        [*to, Pointwise::Blend.new(Pointwise::Chain.new(operations(log)), share), *from]
      end

      # @return [Film::Chain]
      # @raise [MediaError, FormatError]
      def chain
        Film::Chain.new(negative: material(negative, "negative"), print: material(print, "print"), **values.except(:negative, :print))
      end

      # Curves of a tone reproduction diagram, for greys at equal distances of log exposure, see Film::Chain#way; and where they are
      # taken hold of, see Film::Chain#holds.
      def shapes(count:)
        exposure = Numo::DFloat.new(count).seq / (count - 1) * (SHOWN.end - SHOWN.begin) + SHOWN.begin
        one = chain
        curves = one.way(exposure).flat_map { |name, rows| CHANNELS.drop(1).zip(rows).map { |channel, row| [:"#{name}_#{channel}", row.to_a] } }
        {exposure: exposure.to_a, **curves.to_h, **one.holds}
      end
      SHOWN = (-2.4..2.4) # log exposures

      def stamps = chosen.map { |id| Film::Materials.stamp(id) || id }

      def missing = chosen.reject { |id| Film::Materials.stamp(id) }

      private

      def chosen = [negative, print].reject(&:empty?)

      def material(id, kind) = id.empty? ? nil : Film::Materials.fetch(id, kind)
    end
  end
end
