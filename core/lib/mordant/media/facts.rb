# frozen_string_literal: true

module Mordant
  module Media
    # What a clip is, as its file says. Immutable.
    #
    # rate is frames a second as a Rational; start is a timecode's text or nil;
    # range is "full", "legal" or nil where the file does not say; encoding is
    # the id of the camera encoding the file declares, or nil; primaries, transfer and
    # matrix are its colour tags as ffprobe names them, or nil; variable: frames are not all
    # equally long; missing: first and last number of each gap in a run of frames.
    Facts = Struct.new(:width, :height, :rate, :frames, :start, :reel, :codec, :pixel_format, :bit_depth,
      :range, :primaries, :transfer, :matrix, :encoding, :camera, :scene, :take, :variable, :missing, keyword_init: true) do
      def initialize(**values)
        super
        freeze
      end
    end
  end
end
