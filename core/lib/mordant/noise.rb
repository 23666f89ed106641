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
    TURN = [[1 / Math.sqrt(3)] * 3, [1 / Math.sqrt(2), 0.0, -1 / Math.sqrt(2)], [-1 / Math.sqrt(6), 2 / Math.sqrt(6), -1 / Math.sqrt(6)]].freeze

    module_function

    # @param rgb [Numo::SFloat] [3, n] log codes
    # @return [Array<Numo::SFloat>] [n] each
    def turned(rgb) = TURN.map { |row| row.each_with_index.map { |share, channel| rgb[channel, true] * share }.reduce(:+) }

    # @param planes [Array<Numo::SFloat>]
    # @return [Numo::SFloat] [3, n]
    def back(planes) = Numo::NArray.vstack(TURN.transpose.map { |row| row.zip(planes).map { |share, plane| plane * share }.reduce(:+) })
  end
end
