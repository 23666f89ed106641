# frozen_string_literal: true

module Server
  module Pictures
    # What stands for a small picture of footage that cannot be read just then, as when its disk is away: a slate. What is wrong with it is
    # said where the whole picture is asked for.
    module Absent
      HEADER = "x-mordant-slate" # of an answer that is one

      module_function

      # @param clip [Clip]
      # @param raster [Array<Integer>] across and down
      # @return [String] PNG
      def png(clip, (width, height))
        codes = Mordant::Media::Placeholder.new([clip.stem, "cannot be read"]).frame(0, width:, height:)
        Mordant::Media::Png.encode(Mordant::Frame.new(Numo::SFloat.cast(codes.rgb) / 65_535, width:, height:, encoding: "srgb"), compression: COMPRESSION)
      end
      COMPRESSION = 6 # of zlib
    end
  end
end
