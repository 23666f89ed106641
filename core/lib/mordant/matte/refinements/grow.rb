# frozen_string_literal: true

module Mordant
  module Matte
    module Refinements
      # Takes the greatest value within a radius, which makes bright parts of a matte larger; below
      # nothing the least one, which makes them smaller. Between two whole pixels it is mixed of both.
      class Grow < Refinement
        named :grow, "Grow or shrink"

        parameter :size, label: "size", unit: :share, range: -0.2..0.2, neutral: 0.0, about: "Radius, as a share of the picture's height; below 0 it shrinks."

        def margin(raster) = (size.abs * raster.height).ceil

        def call(matte, sight)
          radius = size.abs * sight.moment.height
          rows = Pointwise.shaped(matte, sight.moment.window.height, sight.moment.window.width)
          rows = turned = rows * -1.0 if size.negative?
          about = [radius.floor, radius.ceil].uniq.map { |pixels| Area::Greatest.new(pixels).call(rows) }
          made = between(radius - radius.floor, *[about.first, about.last].map { |plane| Pointwise.shaped(plane, matte.size) })
          [turned, *about.reject { |plane| plane.equal?(rows) }].compact.each(&:free) # which are large
          made
        end

        private

        def between(share, *planes)
          Pointwise.swept(*planes) do |from, to|
            made = from + (to - from) * share
            size.negative? ? made * -1.0 : made
          end
        end
      end
    end
  end
end
