# frozen_string_literal: true

module Mordant
  module Matte
    module Refinements
      # A Gaussian over the matte.
      class Blur < Refinement
        named :blur, "Blur"

        parameter :size, label: "size", unit: :share, range: 0.0..0.2, neutral: 0.0, about: "Standard deviation, as a share of the picture's height."

        def margin(raster) = Area::Gaussian.new(size * raster.height).margin

        def call(matte, sight)
          blurred = Area::Gaussian.new(size * sight.moment.height).call(matte, sight.moment.window)
          HELD.call(blurred).first.tap { blurred.free }
        end

        HELD = Pointwise::Sweep.new(1) { |plane| [plane.clip(0.0, 1.0)] }
        private_constant :HELD
      end
    end
  end
end
