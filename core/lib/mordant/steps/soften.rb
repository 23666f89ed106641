# frozen_string_literal: true

module Mordant
  module Steps
    # Takes detail below a size away, of luma and of colour apart; see Area::Detail.
    class Soften < Step
      named :soften, "Soften"
      domain :log
      reach :area

      parameter :size, label: "size", unit: :share, range: 0.0005..0.1, neutral: 0.005, about: "Of the detail, as a share of the picture's height."
      parameter :luma, label: "luma", unit: :share, range: 0.0..1.0, neutral: 0.0, about: "How much of luma's detail goes."
      parameter :colour, label: "colour", unit: :share, range: 0.0..1.0, neutral: 0.0, about: "How much of colour's detail goes."

      # The size alone changes no picture.
      def neutral? = luma.zero? && colour.zero?

      def process(space) = Area::Detail.new(size:, luma: -luma, colour: -colour, weights: space.luminance_weights)

      def margin(raster) = Area::Gaussian.new(size * raster.height).margin
    end
  end
end
