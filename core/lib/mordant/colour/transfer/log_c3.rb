# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # LogC3 at the exposure indices it is published for.
      #
      # Source: LogC curve white paper, 2012-2017, table of linear scene exposure
      # parameters.
      module LogC3
        A = 5.555556

        # Exposure index => cut, b, c, d, e, f.
        TABLE = {
          160 => [0.005561, 0.080216, 0.269036, 0.381991, 5.842037, 0.092778],
          200 => [0.006208, 0.076621, 0.266007, 0.382478, 5.776265, 0.092782],
          250 => [0.006871, 0.072941, 0.262978, 0.382966, 5.710494, 0.092786],
          320 => [0.007622, 0.068768, 0.259627, 0.383508, 5.637732, 0.092791],
          400 => [0.008318, 0.064901, 0.256598, 0.383999, 5.571960, 0.092795],
          500 => [0.009031, 0.060939, 0.253569, 0.384493, 5.506188, 0.092800],
          640 => [0.009840, 0.056443, 0.250219, 0.385040, 5.433426, 0.092805],
          800 => [0.010591, 0.052272, 0.247190, 0.385537, 5.367655, 0.092809],
          1000 => [0.011361, 0.047996, 0.244161, 0.386036, 5.301883, 0.092814],
          1280 => [0.012235, 0.043137, 0.240810, 0.386590, 5.229121, 0.092819],
          1600 => [0.013047, 0.038625, 0.237781, 0.387093, 5.163350, 0.092824]
        }.freeze

        CURVES = TABLE.transform_values { |cut, b, c, d, e, f| LogToe.new(a: A, b:, c:, d:, e:, f:, cut:) }.freeze

        # @param index [Integer] exposure index, a key of TABLE
        # @return [LogToe]
        def self.at(index) = CURVES.fetch(index)
      end
    end
  end
end
