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
          turned = turned(cleared(matte, window, most))
          turned(cleared(turned, window, most)).tap { turned.free }
        end

        TURNED = Pointwise::Sweep.new(1) { |plane| [plane * -1.0 + 1.0] }
        private_constant :TURNED

        private

        def pixels(raster) = (size * raster.height).round

        def cleared(plane, window, most)
          gone = Area::Islands.new(Pointwise.shaped(plane, window.height, window.width) > NOTHING).within(most)
          plane.dup.tap { |made| Pointwise.shaped(made, window.height, window.width)[gone] = 0.0 }
        end

        # @param plane [Numo::SFloat] used up
        def turned(plane) = TURNED.call(plane).first.tap { plane.free }
      end
    end
  end
end
