# frozen_string_literal: true

module Mordant
  module Matte
    module Refinements
      # A Gaussian over the matte.
      class Blur < Refinement
        named :blur, "Blur"

        parameter :size, label: "size", unit: :share, range: 0.0..0.2, neutral: 0.0, about: "Standard deviation, as a share of the picture's height."

        def margin(raster) = Area::Gaussian.new(size * raster.height).margin

        def call(matte, sight) = Area::Gaussian.new(size * sight.moment.height).call(matte, sight.moment.window).clip(0.0, 1.0)
      end
    end
  end
end
