# frozen_string_literal: true

module Mordant
  module Film
    # Specks and scratches of a frame: what share of the light a patch of the picture loses or wins by them. Places and sizes are shares of
    # the picture's height, from the middle, so that every raster shows the same.
    class Dirt
      LIGHT = 0.9 # linear light that clear film lets through
      SPOTS = 3 # that a speck is made of
      LINES = 6 # scratches there are at most at a time
      LASTING = 48 # frames of a scratch
      LEAST = 0.5 # pixels, standard deviation that is drawn; what is smaller is fainter instead

      # @param chance [Chance]
      # @param frame [Integer]
      # @param aspect [Float] of the picture
      def initialize(chance, frame, aspect)
        @chance, @frame, @aspect = chance, frame, aspect
        freeze
      end

      # @param mean [Float] specks
      # @param size [Float]
      # @return [Array<Hash>] across, down, size, cover and light (clear, else dark) of spots
      def specks(mean, size)
        @chance.count(mean, "specks", @frame).times.flat_map do |speck|
          of = ->(what) { @chance.even("speck", @frame, speck, what) }
          own, cover, light = size * 2.0**@chance.normal("size", @frame, speck).clamp(-1.5, 1.5), 0.5 + 0.45 * of["cover"], of["light"] < 0.3
          across, down = (of["x"] - 0.5) * @aspect, of["y"] - 0.5
          Array.new(SPOTS) do |spot|
            away = own * 1.2 * @chance.even("spot", @frame, speck, spot)
            turn = 2 * Math::PI * @chance.even("turn", @frame, speck, spot)
            {across: across + away * Math.cos(turn), down: down + away * Math.sin(turn), size: own * (0.4 + 0.4 * @chance.even("spread", @frame, speck, spot)), cover:, light:}
          end
        end
      end

      # @param mean [Float] scratches at a time
      # @return [Array<Hash>] across, size, cover, light and seed of lines from top to bottom
      def scratches(mean)
        LINES.times.filter_map do |line|
          shifted = @frame + line * LASTING / LINES
          turn, at = shifted.divmod(LASTING)
          of = ->(what) { @chance.even("scratch", line, turn, what) }
          next unless of["there"] < mean / LINES

          fade = [at + 1, LASTING - at, 4].min / 4.0
          sway = 0.001 * @chance.swaying(shifted, "scratch", line)
          {across: (of["x"] - 0.5) * @aspect + sway, size: 0.0006 * (0.6 + of["width"]), cover: (0.15 + 0.35 * of["cover"]) * fade, light: of["light"] < 0.5, seed: Speckle.seed("scratch", line, turn)}
        end
      end
    end
  end
end
