# frozen_string_literal: true

module Mordant
  module Matte
    # A free region of the plane of hue and chroma, seen along the grey axis; see Axes. Within its
    # outline it acts in full, and falls outside over a softness.
    #
    # The plane is tabulated: CELLS squared places over REACH codes either way, between which it goes
    # straight; an edge is never sharper than one of them.
    class Plane < Contributor
      include Seen

      named :plane, "Hue and chroma"

      CELLS = 512
      REACH = 1.0
      EDGE = 2 * REACH / CELLS

      rows :outline, label: "outline", columns: %i[x y], range: -REACH..REACH, most: 64, about: "Corners in codes: x towards red, y from blue towards green; without three it takes nothing."
      parameter :soft, label: "soft", unit: :code, range: 0.0..0.5, neutral: 0.02, about: "How far it falls outside."

      ROOM = 0.012 # around what is picked

      # @see Contributor#after_pick
      def picked(axes, act)
        patch = near(axes)
        case act
        when "fresh" then {outline: Hull.around(patch, ROOM)}
        when "more" then {outline: Hull.around([*outline, *patch], outline.empty? ? ROOM : 0.0)}
        else {outline: Hull.cut(outline, patch, ROOM)}
        end.transform_values { |points| points.map { |point| point.map { |value| value.clamp(-REACH, REACH) } } }
      end

      def weights(sight) = (outline.size < 3) ? Numo::SFloat.zeros(sight.moment.window.size) : super

      def weights_of(axes) = table.call(*[axes.x, axes.y].map { |value| (value + REACH) * (1 / EDGE) - 0.5 })

      private

      def table
        @table ||= begin
          outside = Ring.new(outline.map { |x, y| [(x + REACH) / EDGE, (y + REACH) / EDGE] }).distance(Grade::Window.whole(CELLS, CELLS), furthest: soft / EDGE + 1)
          Pointwise::SquareTable.new(Matte.fall(outside, [soft / EDGE, 1.0].max), CELLS)
        end
      end

      # Corners of a box about nearly all of what is picked, along its own mean chroma and across.
      def near(axes)
        across, down = [axes.x, axes.y].map { |plane| Ends.of(plane, 0.0) }
        [[across.low, down.low], [across.high, down.low], [across.high, down.high], [across.low, down.high]]
      end
    end
  end
end
