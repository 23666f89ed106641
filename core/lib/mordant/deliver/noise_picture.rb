# frozen_string_literal: true

module Mordant
  module Deliver
    # The noise of Dither as a picture for ffmpeg to add: a little larger than the frames, each
    # of which takes another part of it.
    class NoisePicture
      MARGIN = 128 # pixels
      STEPS = [97, 61].freeze # pixels right and down from frame to frame
      MIDDLE = 1 << 15 # stands for no noise

      # @param path [String] to write it to, as 16-bit planes of green, blue and red
      # @param width [Integer] pixels of the frames
      # @param height [Integer]
      # @param bits [Integer] of the codes that it spans one of
      # @raise [SystemCallError] of a full disk
      def initialize(path, width:, height:, bits:)
        @path, @width, @height = path, width, height
        codes = Numo::UInt16.cast((Dither.noise * (65_535.0 / (2**bits - 1))).round + MIDDLE).to_binary
        plane = (width + MARGIN) * (height + MARGIN) * 2
        all = codes * (plane / codes.bytesize + 3)
        File.open(path, "wb") { |file| 3.times { |channel| file.write(all.byteslice(channel * Dither::STEP * 2, plane)) } }
      end

      # @return [Array<String>] arguments for ffmpeg
      def input = ["-f", "rawvideo", "-pix_fmt", "gbrp16le", "-s", "#{@width + MARGIN}x#{@height + MARGIN}", "-i", "file:#{@path}"]

      # @param filters [String] that make 16-bit planes
      # @param record [Integer] number of the first frame
      # @param rate [Rational]
      # @return [String] filters that make [drawn] of it
      def over(filters, record:, rate:)
        timing = "settb=#{rate.denominator}/#{rate.numerator},setpts=N"
        x, y = STEPS.map { |step| "mod((n+#{record})*#{step}\\,#{MARGIN})" }
        "#{filters},#{timing}[graded];[1:v:0]loop=loop=-1:size=1,#{timing},crop=w=#{@width}:h=#{@height}:x='#{x}':y='#{y}'[noise];" \
          "[graded][noise]blend=all_mode=grainmerge:shortest=1[drawn]"
      end
    end
  end
end
