# frozen_string_literal: true

module Mordant
  module Steps
    # Raises detail below a size, of luma and of colour apart; see Area::Detail.
    class Sharpen < Step
      include Area::Textured

      named :sharpen, "Sharpen"
      domain :log
      reach :area

      parameter :size, label: "size", unit: :share, range: 0.0005..0.1, neutral: 0.0015, about: "Of the detail, as a share of the picture's height."
      parameter :luma, label: "luma", unit: :ratio, range: 0.0..4.0, neutral: 0.0, about: "How much of luma's detail is added once more."
      parameter :colour, label: "colour", unit: :ratio, range: 0.0..4.0, neutral: 0.0, about: "How much of colour's detail is added once more."
      parameter :threshold, label: "threshold", unit: :tone, range: 0.0..0.1, neutral: 0.0, about: "Luma's detail below it is left as it is: noise."
      parameter :halo, label: "halos", unit: :share, range: 0.0..1.0, neutral: 1.0, about: "How far luma may go beyond the least and the greatest about it; 0: not at all."

      def sign = 1.0
    end
  end
end
