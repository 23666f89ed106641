# frozen_string_literal: true

module Mordant
  module Deliver
    # One video file, encoded by ffmpeg. Frames are first kept without loss in the pixel
    # format of the encoder, part by part; the whole is encoded when all are there.
    class VideoFormat < Format
      SCALING = "flags=bicubic+accurate_rnd+full_chroma_int+full_chroma_inp"

      class << self
        # @return [String] ffmpeg's pixel format
        attr_reader :pixels

        # @param pixels [String]
        # @param encoder [Array<String>] arguments
        # @param container [Array<String>] arguments
        def encoded(pixels:, encoder:, container:)
          @pixels, @encoder, @container = pixels, encoder, container
        end

        def sequence? = false

        # Video of luma and colour differences may be legal; RGB is full.
        def ranges = rgb? ? super : [Colour::SignalRange::LEGAL, Colour::SignalRange::FULL]

        # @return [String] ffmpeg's encoder of sound
        def sound = (extension == ".mp4") ? "aac" : "pcm_s24le"

        def rgb? = pixels.start_with?("gbr")

        # @param sheet [Sheet]
        # @return [String] filter from 16-bit full-range RGB
        def filter(sheet)
          return "format=#{pixels}" if rgb?

          "scale=out_color_matrix=#{matrix(sheet).sub("bt2020nc", "bt2020")}:out_range=#{range(sheet)}:#{SCALING},format=#{pixels}"
        end

        # @return [Array<String>] arguments that keep frames without loss
        def lossless(sheet) = ["-c:v", "ffv1", "-level", "3", "-g", "1", "-slicecrc", "1", *tags(sheet)]

        # @param light [Hash, nil] :cll and :fall in cd/m2, of what is absolute
        # @return [Array<String>] arguments of the encoder
        def encoder(sheet, **) = [*@encoder, *tags(sheet), "-pix_fmt", pixels]

        # @param timecode [Cut::Timecode]
        # @param reel [String, nil]
        # @return [Array<String>] arguments of the container
        def container(sheet, timecode:, reel:)
          ["-timecode", timecode.to_s, *(reel ? ["-metadata", "reel_name=#{reel}"] : []), *@container]
        end

        # @return [Array<String>] arguments that say which colours the codes mean
        def tags(sheet)
          primaries, transfer, = ColourTags.of(sheet.view.encoding)
          ["-color_primaries", primaries, "-color_trc", transfer, "-colorspace", matrix(sheet), "-color_range", range(sheet)]
        end

        # @return [String] "pc" or "tv"
        def range(sheet) = (sheet.range == Colour::SignalRange::FULL) ? "pc" : "tv"

        private

        def matrix(sheet) = rgb? ? "rgb" : ColourTags.of(sheet.view.encoding).last
      end
    end
  end
end
