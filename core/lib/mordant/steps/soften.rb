# frozen_string_literal: true

module Mordant
  module Steps
    # Takes detail below a size away, of luma and of colour apart; see Area::Detail.
    class Soften < Step
      include Area::Textured

      named :soften, "Soften"
      domain :log
      reach :area

      parameter :size, label: "size", unit: :share, range: 0.0005..0.1, neutral: 0.005, about: "Of the detail, as a share of the picture's height."
      parameter :luma, label: "luma", unit: :share, range: 0.0..1.0, neutral: 0.0, about: "How much of luma's detail goes."
      parameter :colour, label: "colour", unit: :share, range: 0.0..1.0, neutral: 0.0, about: "How much of colour's detail goes."
      parameter :threshold, label: "threshold", unit: :tone, range: 0.0..0.1, neutral: 0.0, about: "Luma's detail above it is left as it is: edges."

      def sign = -1.0
    end
  end
end
