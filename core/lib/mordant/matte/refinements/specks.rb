# frozen_string_literal: true

module Mordant
  module Matte
    module Refinements
      # Takes islands away that are no larger than a size, across and down, and fills such holes. An
      # island is what hangs together where there is anything at all, a hole what does where it is
      # not full.
      class Specks < Refinement
        named :specks, "Clean specks"

        parameter :size, label: "size", unit: :share, range: 0.0..0.1, neutral: 0.0, about: "Of the largest that goes, as a share of the picture's height."

        NOTHING = 1 / 16.0

        def margin(raster) = pixels(raster) + 1

        def call(matte, sight)
          window, most = sight.moment.window, pixels(sight.moment)
          cleared = cleared(Pointwise.shaped(matte, window.height, window.width), most)
          (cleared(cleared * -1.0 + 1.0, most) * -1.0 + 1.0).reshape!(matte.size)
        end

        private

        def pixels(raster) = (size * raster.height).round

        def cleared(rows, most)
          islands = Area::Islands.new(rows > NOTHING)
          gone = islands.within(most)
          made = rows.dup
          made[gone] = 0.0
          made
        end
      end
    end
  end
end
