# frozen_string_literal: true

module Mordant
  module Deliver
    # One video file, encoded by ffmpeg part by part. Where every frame stands by itself the
    # parts are joined as they are; else they are kept without loss, and the whole is encoded
    # when all are there.
    class VideoFormat < Format
      class << self
        # @return [String] ffmpeg's pixel format
        attr_reader :pixels

        # @param pixels [String]
        # @param encoder [Array<String>] arguments
        # @param container [Array<String>] arguments
        # @param intra [Boolean] every frame is coded by itself
        # @param least [Array<Integer>] width and height
        # @param slim [Array<String>] arguments of the encoder besides, by which it looks less far ahead in large pictures
        def encoded(pixels:, encoder:, container:, intra: false, least: nil, slim: [])
          @pixels, @encoder, @container, @intra, @least, @slim = pixels, encoder, container, intra, least, slim
        end

        def least = @least || super

        def sequence? = false

        def intra? = @intra

        # Video of luma and colour differences may be legal; RGB is full.
        def ranges = rgb? ? super : [Colour::SignalRange::LEGAL, Colour::SignalRange::FULL]

        # @return [String] ffmpeg's encoder of sound
        def sound = (extension == ".mp4") ? "aac" : "pcm_s24le"

        def rgb? = pixels.start_with?("gbr")

        # @param sheet [Sheet]
        # @return [String] filter from 16-bit full-range RGB
        def filter(sheet) = Media::Coding.from_rgb(pixels, matrix: rgb? ? "gbr" : ColourTags.of(sheet.view.encoding).last, range: sheet.range)

        # @return [Array<String>] arguments that encode a part
        def part(sheet) = intra? ? encoder(sheet) : ["-c:v", "ffvhuff", *tags(sheet)]

        # @param rate [Rational] frames a second
        # @param light [Hash, nil] see #encoder
        # @return [Array<String>] arguments that make the whole of parts
        def whole(sheet, rate:, light:)
          intra? ? ["-c:v", "copy", *tags(sheet), "-r", rate.to_s] : [*encoder(sheet, light:), "-fps_mode", "cfr", "-r", rate.to_s]
        end

        # @param light [Hash, nil] :cll and :fall in cd/m2, of what is absolute
        # @return [Array<String>] arguments of the encoder
        def encoder(sheet, **) = [*@encoder, *(@slim if sheet.large?), *tags(sheet), "-pix_fmt", pixels]

        # @param timecode [Cut::Timecode]
        # @param reel [String, nil]
        # @return [Array<String>] arguments of the container
        def container(sheet, timecode:, reel:)
          named = reel ? ["-metadata", "reel_name=#{reel}", "-metadata:s:v:0", "reel_name=#{reel}"] : []
          ["-timecode", timecode.to_s, *named, *@container]
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
