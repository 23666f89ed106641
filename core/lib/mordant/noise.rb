# frozen_string_literal: true

module Mordant
  # What is not picture: measured, and taken away by comparing frames and by detail size.
  #
  # All of it works on three planes of log codes, which are turned so that noise that is alike and independent in red, green and blue is so
  # in them too:
  #
  #   l = (r + g + b) / sqrt(3),   u = (r - b) / sqrt(2),   v = (2 g - r - b) / sqrt(6)
  module Noise
    PLANES = %i[luma u v].freeze

    module_function

    # @param rgb [Numo::SFloat] [3, n] log codes
    # @return [Array<Numo::SFloat>] [n] each
    def turned(rgb)
      red, green, blue = (0..2).map { |channel| rgb[channel, true] }
      sum = red + green + blue
      [sum * (1 / Math.sqrt(3)), (red - blue).inplace * (1 / Math.sqrt(2)), ((green * 3.0).inplace - sum) * (1 / Math.sqrt(6))].each(&:out_of_place!)
    end

    # @param planes [Array<Numo::SFloat>]
    # @return [Numo::SFloat] [3, n]
    def back(planes)
      grey, side, rise = planes.zip([1 / Math.sqrt(3), 1 / Math.sqrt(2), 1 / Math.sqrt(6)]).map { |plane, share| plane * share }
      out = Numo::SFloat.new(3, grey.size).allocate
      out[1, true] = grey + rise * 2.0
      (grey.inplace - rise).out_of_place!
      out[0, true] = grey + side
      out[2, true] = grey - side
      out
    end
  end
end
