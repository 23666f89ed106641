# frozen_string_literal: true

module Mordant
  # A picture: three planes of 32-bit floats and the encoding they are in.
  #
  # Shape: rgb is a Numo::SFloat [3, width * height], row-major, top row first.
  # Values: full-range code values (nominally 0.0..1.0) or linear light, as the
  # encoding says; nothing is clamped.
  class Frame
    attr_reader :rgb, :width, :height
    # @return [String] id of a Colour::Encoding
    attr_reader :encoding
    # @return [Grade::Place] of what whole picture it is which part
    attr_reader :place

    # @param place [Grade::Place, nil] nil: it is whole
    # @raise [ShapeError] unless rgb is an SFloat of shape [3, width * height]
    def initialize(rgb, width:, height:, encoding:, place: nil)
      unless rgb.is_a?(Numo::SFloat) && rgb.shape == [3, width * height]
        raise ShapeError, "a #{width}x#{height} frame needs an SFloat of shape [3, #{width * height}], " \
                          "found #{rgb.class} of shape #{rgb.shape}"
      end
      @rgb, @width, @height, @encoding = rgb, width, height, encoding
      @place = place || Grade::Place.whole(width, height)
    end

    # @return [Integer] pixels
    def size = width * height

    # @return [Frame] the same raster with other values
    def with(rgb, encoding: self.encoding)
      Frame.new(rgb, width:, height:, encoding:, place:)
    end

    # @param chain [Pointwise::Chain]
    # @return [Frame] what it makes of this one
    def through(chain, encoding:) = with(chain.call(rgb), encoding:)

    # @param apart [Boolean] an output makes something else of the outgoing and of the incoming shot of a transition
    # @yieldparam frame [Frame] that an output is made of
    # @yieldparam side [Symbol] :outgoing or :incoming, whose output that is
    # @yieldreturn [Frame] as the output has it
    # @return [Frame] the same of all that it consists of; see Deliver::Mixing
    def shown(apart: false) = yield(self, :incoming) # rubocop:disable Lint/UnusedMethodArgument

    # @return [Numo::SFloat] [3], the value at a pixel counted from the top left
    def at(x, y)
      rgb[true, y * width + x].dup
    end

    # The mean of whole blocks of pixels; right and bottom remainders that do
    # not fill a block are left out. Means are taken of the values as encoded.
    #
    # @param by [Integer] block edge in pixels; 1 returns the frame itself
    # @return [Frame]
    def reduce(by)
      return self if by == 1

      w, h = width / by, height / by
      cropped = rgb.reshape(3, height, width)[true, 0...(h * by), 0...(w * by)]
      blocks = cropped.reshape(3, h, by, w, by)
      sum = Numo::SFloat.zeros(3, h, w)
      by.times { |j| by.times { |i| (sum.inplace + blocks[true, true, j, true, i]).out_of_place! } }
      (sum.inplace * (1.0 / (by * by))).out_of_place!
      Frame.new(sum.reshape(3, w * h), width: w, height: h, encoding: encoding)
    end
  end
end
