# frozen_string_literal: true

module Mordant
  module Rendition
    # An operation on those pixels alone that it would move; the others come out as they went in.
    class Where
      # @param operation [#call] of planes
      # @yieldparam planes [Array<Numo::NArray>]
      # @yieldreturn [Numo::Bit] [n], which pixels it moves
      def initialize(operation, &moves)
        @operation, @moves = operation, moves
        freeze
      end

      # @param primaries [Colour::Primaries]
      # @param peak [Float] see WithinPeak
      def self.peak(primaries, peak)
        weights = primaries.to_xyz[1]
        new(WithinPeak.new(weights, peak)) do |planes|
          grey = planes.zip(weights).map { |plane, weight| plane * weight }.reduce(:+).clip(nil, peak)
          most(planes) - grey > (grey * -1.0 + peak) * WithinPeak::NEAR
        end
      end

      # @param reach [Array<Float>] see WithinGamut
      def self.gamut(reach)
        new(WithinGamut.new(reach)) do |planes|
          most = most(planes)
          most - planes.reduce { |low, plane| low.clip(nil, plane) } > most * WithinGamut::NEAR
        end
      end

      def self.most(planes) = planes.reduce { |high, plane| high.clip(plane, nil) }
      private_class_method :most

      def merge(_following) = nil

      def tabulate = self

      # @param planes [Array<Numo::NArray>]
      # @return [Array<Numo::NArray>] new ones
      def call(planes)
        at = @moves.call(planes).where
        out = planes.map(&:dup)
        return out if at.empty?

        moved = @operation.call(planes.map { |plane| plane[at].dup })
        out.zip(moved) { |plane, some| plane[at] = some }
        out
      end
    end
  end
end
