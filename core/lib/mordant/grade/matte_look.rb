# frozen_string_literal: true

module Mordant
  module Grade
    # How a matte is shown: as grey; the picture over grey, where it acts; its outline in the picture; or tinted.
    module MatteLook
      LOOKS = %w[grey veil outline tint].freeze
      # What is left of the luma of pixels it does not act on, and added to it.
      VEIL = 0.3
      FOOT = 0.02
      EDGES = [0.5, 0.04].freeze # weights that an outline follows, from the plain one to the faintest
      TINT = [0.42, 0.34, 0.72].freeze # codes
      SHARE = 0.6 # of the tint, where it acts in full
      BETWEEN = 0.02..0.98 # weights that are neither nothing nor all

      module_function

      # @param drawn [Frame] codes of a display
      # @param weights [Numo::SFloat] [n], 0..1
      # @param look [String] one of LOOKS
      # @return [Frame]
      # @raise [ParameterError]
      def draw(drawn, weights, look)
        case look
        when "grey" then drawn.with(Numo::NArray.vstack([weights] * 3))
        when "veil" then veil(drawn, weights)
        when "outline" then outline(drawn, weights)
        when "tint" then tint(drawn, weights)
        else raise ParameterError.new(path: "look", expected: LOOKS.join(", "), found: look)
        end
      end

      # A picture whose other pixels are grey and dim.
      def veil(drawn, weights)
        planes = Array.new(3) { |channel| drawn.rgb[channel, true] }
        grey = planes.zip(Colour.encoding(drawn.encoding).luma_weights).map { |plane, weight| plane * weight }.reduce(:+) * VEIL + FOOT
        rest = weights * -1.0 + 1.0
        drawn.with(Numo::NArray.vstack(planes.map { |plane| plane * weights + grey * rest }))
      end

      def tint(drawn, weights)
        share = weights * SHARE
        drawn.with(Numo::NArray.vstack(TINT.each_with_index.map { |code, channel| drawn.rgb[channel, true].then { |plane| plane + (plane * -1.0 + code) * share } }))
      end

      # Light on a dark seam, so that it is seen on any picture; the faintest edge is thinner.
      def outline(drawn, weights)
        rows = weights.reshape(drawn.height, drawn.width)
        line, faint = EDGES.map { |edge| edge_of(rows >= edge) }
        seam = spread(line)
        planes = Array.new(3) do |channel|
          plane = drawn.rgb[channel, true].dup.reshape(drawn.height, drawn.width)
          plane *= (seam * -0.7 + 1.0)
          plane += (plane * -1.0 + 0.6) * faint * 0.6
          (plane + (plane * -1.0 + 0.95) * line).reshape(drawn.size)
        end
        drawn.with(Numo::NArray.vstack(planes))
      end

      # @param weights [Numo::SFloat] [n]
      # @return [Hash{Symbol => Float}] share of the picture, and share that is in between
      def told(weights)
        {share: weights.mean.round(5).to_f, between: ((weights > BETWEEN.begin) & (weights < BETWEEN.end)).count_true.fdiv(weights.size).round(5)}
      end

      # Pixels within whose right or lower neighbour is not, or the other way round.
      def edge_of(within)
        inside = Numo::Int8.cast(within)
        edge = Numo::SFloat.zeros(*inside.shape)
        edge[true, 0...-1] = Numo::SFloat.cast(inside[true, 0...-1].ne(inside[true, 1..])) if inside.shape[1] > 1
        edge[0...-1, true] = Numo::SFloat.maximum(edge[0...-1, true].dup, Numo::SFloat.cast(inside[0...-1, true].ne(inside[1.., true]))) if inside.shape[0] > 1
        edge
      end

      def spread(line) = Area::Greatest.new(1).call(line)
    end
  end
end
