# frozen_string_literal: true

module Mordant
  module Rendition
    # Six sectors of hue in the plane of Ct and Cp, about the primaries of P3-D65 and the colours between them. From the middle of one to that of
    # the next its weight falls as a cosine from 1 to 0, and the next one's rises, so that all weights add up to 1.
    class Sectors
      NAMES = %i[red yellow green cyan blue magenta].freeze
      LIGHT = 0.5 # of the colours whose angles are their middles, 1.0 at 100 cd/m2
      COLOURS = [[1.0, 0.0, 0.0], [1.0, 1.0, 0.0], [0.0, 1.0, 0.0], [0.0, 1.0, 1.0], [0.0, 0.0, 1.0], [1.0, 0.0, 1.0]].freeze

      # @return [Array<Float>] turns of each, -0.5..0.5 of a whole one, by NAMES
      def self.middles
        @middles ||= begin
          light = Numo::DFloat.cast(COLOURS.transpose) * LIGHT
          wide = Pointwise::Chain.new([Pointwise::Matrix.new(Colour::Primaries::P3_D65.to(Colour::Primaries::REC2020))]).exact(light)
          ICtCp.of(wide * 100.0).then { |made| made[1, true].to_a.zip(made[2, true].to_a).map { |ct, cp| Math.atan2(cp, ct) / (2 * Math::PI) } }.freeze
        end
      end

      # @param hue [Array<Float>] degrees, by NAMES
      # @param amount [Array<Float>] -1.0..1.0
      def initialize(hue, amount)
        @hue, @amount = hue, amount
        order = Sectors.middles.each_with_index.sort
        @places = [order.last.first - 1.0, *order.map(&:first), order.first.first + 1.0]
        @order = [order.last.last, *order.map(&:last), order.first.last]
        @along, @across = [:cos, :sin].map { |way| Pointwise::UniformTable.new(->(turn) { part(turn, way) }, fine: false) }
        freeze
      end

      # @param planes [Array<Numo::NArray>] Ct and Cp
      # @return [Array<Numo::NArray>] new ones
      def call(planes, exact: false)
        ct, cp = planes
        turn = Numo::NMath.atan2(cp, ct) * (0.5 / Math::PI)
        along, across = exact ? [:cos, :sin].map { |way| part(turn, way) } : [@along, @across].map { |table| table.call(turn) }
        [ct * along - cp * across, ct * across + cp * along]
      end

      private

      # The gain of a sector, along or across the colour itself.
      def part(turn, way) = (1.0 + spread(@amount, turn)) * Numo::NMath.public_send(way, spread(@hue, turn) * (Math::PI / 180))

      def spread(values, turn)
        @places.each_cons(2).with_index.reduce(turn * 0.0) do |sum, ((from, to), at)|
          share = (turn - from) / (to - from)
          fall = (Numo::NMath.cos(share * Math::PI) + 1.0) * 0.5
          mixed = (fall * values[@order[at]]) + ((1.0 - fall) * values[@order[at + 1]])
          sum + mixed * turn.class.cast((share >= 0.0) & (share < 1.0))
        end
      end
    end
  end
end
