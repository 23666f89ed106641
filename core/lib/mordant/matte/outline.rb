# frozen_string_literal: true

module Mordant
  module Matte
    # A closed shape of straight and curved edges: 1 within, 0 outside. Between two points runs a
    # cubic Bezier curve whose handles are the first's outgoing and the second's incoming one; where
    # both are none, a straight line. What winds round a place holds it.
    #
    # It falls from a feather within the line to one outside it; a point has lengths of its own
    # that are added to those of the whole and go evenly along edges.
    class Outline < Contributor
      include Placed

      named :outline, "Shape"

      COLUMNS = %i[x y in_x in_y out_x out_y feather_in feather_out].freeze
      POINT = -8.0..8.0
      RANGES = COLUMNS.to_h { |name| [name, name.start_with?("feather") ? 0.0..4.0 : POINT] }.freeze

      rows :points, label: "points", columns: COLUMNS, range: RANGES, most: 200,
        about: "From the middle of the picture, as shares of its height; handles as they are off their point, and feathers added to those of the whole. Fewer than three take nothing."
      parameter :feather, label: "feather", unit: :share, range: 0.0..4.0, neutral: 0.0, channels: %i[inside outside], about: "How far it falls within and outside its line, as shares of the picture's height."

      FLATTEST = 0.1 # pixels that a straight piece may be off its curve
      MOST_PIECES = 32 # of an edge

      def self.sees_picture? = false

      def self.family = :shape

      # @return [Array(Float, Float)] the middle of its points, where it was drawn
      def centre = points.transpose.first(2).map { |values| values.sum / values.size }

      def weights(sight)
        moment = sight.moment
        return Numo::SFloat.zeros(moment.window.size) if points.size < 3

        places, feathers = flattened(moment)
        least = 0.5 # pixels, so that no line is sharper than one
        reach = feathers.flatten.max.clamp(least, nil) + 1
        return fallen(Ring.new(places).distance(moment.window, furthest: reach), *feathers.first.map { |length| [length, least].max }) if feathers.uniq.one?

        distance, inner, outer = Ring.new(places, feathers.map { |pair| pair.map { |length| [length, least].max } }).feathered(moment.window, furthest: reach)
        fallen(distance, inner, outer)
      end

      private

      # @param inner [Float, Numo::SFloat]
      # @param outer [Float, Numo::SFloat] of each pixel, or of all
      def fallen(distance, inner, outer)
        return Pointwise.swept(distance, inner, outer) { |*planes| fall(*planes) } unless inner.is_a?(Float)

        Pointwise.swept(distance) { |plane| fall(plane, inner, outer) }
      end

      def fall(distance, inner, outer) = Matte.smooth((distance * -1.0 + outer) / (inner + outer))

      # @return [Array(Array, Array)] points of straight pieces in pixels from the upper left corner, and what
      #   they fall by, in pixels
      def flattened(moment)
        map, height = placing, moment.height.to_f
        pixels = ->(x, y) { map.call(x, y).then { |across, down| [across * height + moment.width / 2.0, down * height + moment.height / 2.0] } }
        made = points.each_index.flat_map do |index|
          from, to = points[index], points[(index + 1) % points.size]
          edge(from, to, pixels).map { |share, place| [place, [6, 7].map { |at| (from[at] + (to[at] - from[at]) * share + feather[at - 6]) * height }] }
        end
        made.transpose
      end

      # @return [Array<Array(Float, Array)>] share of the edge, and place; without its end
      def edge(from, to, pixels)
        return [[0.0, pixels.call(from[0], from[1])]] if from[4, 2].all?(&:zero?) && to[2, 2].all?(&:zero?)

        corners = [from.first(2), [from[0] + from[4], from[1] + from[5]], [to[0] + to[2], to[1] + to[3]], to.first(2)]
        count = pieces(corners.map { |x, y| pixels.call(x, y) })
        (0...count).map do |index|
          t = index.fdiv(count)
          weights = [(1 - t)**3, 3 * t * (1 - t)**2, 3 * t * t * (1 - t), t**3]
          [t, pixels.call(*[0, 1].map { |axis| corners.zip(weights).sum { |corner, weight| corner[axis] * weight } })]
        end
      end

      # How many straight ones keep within FLATTEST: Wang's bound of the second differences.
      def pieces(corners)
        bend = corners.each_cons(3).map { |a, b, c| Math.hypot(a[0] - 2 * b[0] + c[0], a[1] - 2 * b[1] + c[1]) }.max
        Math.sqrt(6.0 * bend / (8 * FLATTEST)).ceil.clamp(1, MOST_PIECES)
      end
    end
  end
end
