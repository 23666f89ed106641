# frozen_string_literal: true

module Mordant
  module Rendition
    # I, Ct and Cp of an HDR picture to those of a rendition: an operation of Pointwise chains.
    class Toning
      # @param tones [Tones]
      # @param sectors [Sectors, nil]
      def initialize(tones, sectors = nil)
        @tones, @sectors = tones, sectors
        @intensity, @colour = %i[intensity colour].map { |name| Pointwise::UniformTable.new(tones.method(name), fine: false) }
        freeze
      end

      # @param planes [Array<Numo::NArray>]
      # @return [Array<Numo::NArray>] new ones
      def call(planes) = turned(planes, @tones.intensity(planes.first), @tones.colour(planes.first), exact: true)

      def merge(_following) = nil

      # @return [Pointwise::Formula] the same by tables
      def tabulate = Pointwise::Formula.new(recordable: @sectors.nil?) { |planes| turned(planes, @intensity.call(planes.first), @colour.call(planes.first)) }

      private

      def turned(planes, intensity, scale, exact: false)
        colours = planes[1..].map { |plane| plane * scale }
        [intensity, *(@sectors ? @sectors.call(colours, exact:) : colours)]
      end
    end
  end
end
