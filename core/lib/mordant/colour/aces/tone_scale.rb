# frozen_string_literal: true

module Mordant
  module Colour
    module ACES
      # The tone curves of the reference rendering and of the 48 cd/m2 output.
      # Source: ACESlib.Tonescales.ctl, RRT_PARAMS and ODT_48nits.
      module ToneScale
        MID_GREY = 0.18

        RENDERING = SegmentedSpline.new(
          low: [-4.0, -4.0, -3.1573765773, -0.4852499958, 1.8477324706, 1.8477324706],
          high: [-0.7185482425, 2.0810307172, 3.6681241237, 4.0, 4.0, 4.0],
          min: [MID_GREY * 2.0**-15, 0.0001], mid: [MID_GREY, 4.8], max: [MID_GREY * 2.0**18, 10_000.0]
        )

        CINEMA_48 = SegmentedSpline.new(
          low: [-1.6989700043, -1.6989700043, -1.4779, -1.2291, -0.8648, -0.4480, 0.005180,
            0.4511080334, 0.9113744414, 0.9113744414],
          high: [0.5154386965, 0.8470437783, 1.1358, 1.3802, 1.5197, 1.5985, 1.6467,
            1.6746091357, 1.6878733390, 1.6878733390],
          min: [RENDERING.at(MID_GREY * 2.0**-6.5), 0.02],
          mid: [RENDERING.at(MID_GREY), 4.8],
          max: [RENDERING.at(MID_GREY * 2.0**6.5), 48.0],
          slope_high: 0.04
        )

        CINEMA_BLACK = 0.02 # cd/m2
        CINEMA_WHITE = 48.0 # cd/m2

        # Rendered scene light to display light with 0 at cinema black and 1 at
        # cinema white, both curves in one.
        STANDARD = lambda do |light|
          (CINEMA_48.call(RENDERING.call(light)) - CINEMA_BLACK) / (CINEMA_WHITE - CINEMA_BLACK)
        end
      end
    end
  end
end
