# frozen_string_literal: true

module Mordant
  module Grade
    # Light of an HDR picture on a screen of less: what is brightest of red, green and blue goes by the curve of Rendition::ToneCurve to the
    # screen's white, and the others with it, so that hues stay. An operation of Pointwise chains on display light, 1.0 at the screen's white.
    class RollOff
      WHITE = 100.0 # cd/m2

      # @param peak [Float] cd/m2, that comes to lie at the screen's white
      def initialize(peak)
        @curve = Rendition::ToneCurve.new(black: 0.0, white: [peak, WHITE].max, least: 0.0, greatest: WHITE)
        @table = Pointwise::FloatTable.new(method(:share))
        freeze
      end

      def merge(_following) = nil

      def tabulate = Pointwise::Formula.new(recordable: true) { |planes| scaled(planes) { |most| @table.call(most) } }

      # @param planes [Array<Numo::NArray>]
      # @return [Array<Numo::NArray>]
      def call(planes) = scaled(planes) { |most| share(most) }

      private

      def scaled(planes)
        shares = yield(planes.reduce { |high, plane| high.clip(plane, nil) }.clip(0.0, nil))
        planes.map { |plane| plane * shares }
      end

      # What light is multiplied by.
      def share(light)
        low = light.clip(1e-6, nil)
        Colour::Transfer::PQ.decode(@curve.call(Colour::Transfer::PQ.encode(low))) / low
      end
    end
  end
end
