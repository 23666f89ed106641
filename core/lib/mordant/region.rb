# frozen_string_literal: true

module Mordant
  # A part of a picture, in shares of it: what is measured alone, or picked.
  module Region
    module_function

    # @param region [Array<Float>] left, top, width and height as shares of the picture;
    #   what lies outside of it is left out
    # @return [Array<Range>] columns and rows, one at least
    # @raise [ParameterError]
    def pixels(region, width, height)
      fine = region.is_a?(Array) && region.size == 4 && region.all? { |x| x.is_a?(Numeric) && x.to_f.finite? }
      raise ParameterError.new(path: "region", expected: "left, top, width and height as shares of the picture", found: region) unless fine

      [span(region[0], region[2], width), span(region[1], region[3], height)]
    end

    # @param frame [Frame]
    # @return [Numo::SFloat] [3, pixels of the region]
    def cut(frame, region)
      columns, rows = pixels(region, frame.width, frame.height)
      frame.rgb.reshape(3, frame.height, frame.width)[true, rows, columns].dup.reshape(3, rows.size * columns.size)
    end

    def span(start, length, edge)
      first = (start * edge).floor.clamp(0, edge - 1)
      first..((start + length) * edge).ceil.pred.clamp(first, edge - 1)
    end
  end
end
