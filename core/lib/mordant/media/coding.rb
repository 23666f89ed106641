# frozen_string_literal: true

module Mordant
  module Media
    # How the numbers of a file stand for red, green and blue: pixel format, matrix and
    # range; and the filters between them and 16-bit full-range RGB, both ways. All
    # arithmetic between Y'CbCr and RGB is libzimg's (ffmpeg's zscale), as swscale is off by
    # 0.4 % at 16 bits. Immutable.
    #
    # A file that names no matrix is read by this rule: BT.2020 where its primaries are
    # tagged BT.2020; BT.601 where its raster is no larger than 720x576; else BT.709. One
    # that names no range is read as legal where it holds Y'CbCr, as full where it holds RGB
    # or grey.
    #
    # Sources: ITU-R BT.601-7, BT.709-6, BT.2020-2 (matrices and quantisation), ITU-T H.273.
    class Coding
      # zscale's name of each matrix by ffprobe's.
      MATRICES = {"bt709" => "709", "smpte170m" => "170m", "bt470bg" => "470bg", "fcc" => "fcc", "smpte240m" => "smpte2400m",
                  "bt2020nc" => "2020_ncl", "ycgco" => "ycgco", "gbr" => "gbr"}.freeze
      # Width and height up to which an untagged picture is taken for BT.601.
      STANDARD_DEFINITION = [720, 576].freeze
      # Packed and two-plane formats as planes of the same numbers, by pattern.
      PLANAR = {
        /\Anv(12|21)\z/ => "yuv420p", /\Anv16\z/ => "yuv422p", /\Anv(24|42)\z/ => "yuv444p", /\Anv20/ => "yuv422p10le",
        /\Ap01(\d)/ => 'yuv420p1\1le', /\Ap21(\d)/ => 'yuv422p1\1le', /\Ap41(\d)/ => 'yuv444p1\1le', /\Ay21(\d)/ => 'yuv422p1\1le',
        /\A(yuyv|uyvy|yvyu)422\z/ => "yuv422p", /\Auyyvyy411\z/ => "yuv411p", /\Ayuva(4\d\dp)(\d*)/ => 'yuv\1\2le', /\A(rgb|bgr)(48|a64)/ => "gbrp16le",
        /\Ax2(rgb|bgr)10/ => "gbrp10le", /\A(rgb|bgr|argb|abgr|0rgb|0bgr|pal8|mono)/ => "gbrp", /\Agbrapf32/ => "gbrpf32le", /\Agbrap(\d*)/ => 'gbrp\1le',
        /\A(yuv4\d\dp|gbrp|gray)(f?\d+)be\z/ => '\1\2le', /\Aya8\z/ => "gray", /\Aya16/ => "gray16le"
      }.freeze
      # Formats whose numbers are not red, green and blue of a picture.
      REFUSED = {/\Abayer/ => "sensor-raw pictures are not developed here; bring it as a log-encoded video or sequence",
                 /\Axyz/ => "X'Y'Z' pictures are not read; bring the master before it was made"}.freeze

      attr_reader :pixel_format, :width, :height, :range, :matrix

      # @param facts [#pixel_format, #width, #height, #matrix, #primaries, #range] of a file
      # @param range [String, nil] "full" or "legal" to read it as; nil: as the file says
      # @return [Coding]
      def self.of(facts, range: nil)
        new(pixel_format: facts.pixel_format, width: facts.width, height: facts.height, matrix: facts.matrix, primaries: facts.primaries, range: range || facts.range)
      end

      # @param pixel_format [String] ffmpeg's name
      # @param width [Integer] pixels
      # @param height [Integer]
      # @param matrix [String, nil] ffprobe's name; nil where the file tells none
      # @param primaries [String, nil]
      # @param range [String, nil] "full" or "legal"
      # @raise [ParameterError] of numbers that are no red, green and blue, or of a matrix that cannot be undone
      def initialize(pixel_format:, width:, height:, matrix: nil, primaries: nil, range: nil)
        @pixel_format, @width, @height = pixel_format.to_s, width, height
        refused = REFUSED.find { |pattern, _| pattern.match?(@pixel_format) }&.last
        raise ParameterError.new(path: "pixel format", expected: "red, green and blue, or luma and differences of them", found: refused) if refused

        @matrix = matrix_of(matrix, primaries)
        @range = range || (luma? ? Colour::SignalRange::LEGAL : Colour::SignalRange::FULL)
        freeze
      end

      # @return [Boolean] numbers are 32-bit floats
      def float? = pixel_format.match?(/f32/)

      # @return [Boolean] it holds luma and two colour differences
      def luma? = pixel_format.match?(/\A(yuv|yuy|uyv|yvy|uyy|nv\d|p\d\d\d|y2)/)

      def grey? = pixel_format.match?(/\A(gray|ya)/)

      # @param width [Integer] of the raster wanted
      # @param height [Integer]
      # @param fit [String] one of FITS
      # @return [String] filters of ffmpeg to planes of 16-bit full-range codes (of floats: of floats) of that raster
      def to_rgb(width:, height:, fit: "stretch")
        wide, high = scaled(width, height, fit)
        size = "w=#{wide}:h=#{high}:f=#{filter(wide, high)}"
        ["#{planes},setfield=prog,zscale=#{size}:min=#{MATRICES.fetch(matrix)}:rin=#{(range == Colour::SignalRange::FULL) ? "full" : "limited"}:m=gbr:r=full,format=#{float? ? "gbrpf32le" : "gbrp16le"}",
          *framed(width, height, wide, high)].join(",")
      end

      # How a picture of another shape comes into a raster.
      FITS = {"inside" => "whole, with bars", "fill" => "filled, edges cut off", "stretch" => "stretched"}.freeze
      SAME_SHAPE = 1 # pixels that edges may differ by, so that nothing is added or cut off

      # Codes of legal range, of 8 bits: luma, and differences of colour.
      LEGAL_LUMA = [16, 235].freeze
      LEGAL_CHROMA = [16, 240].freeze

      # @param pixels [String] planar pixel format wanted
      # @param matrix [String] ffprobe's name
      # @param range [String] "full" or "legal"
      # @return [String] filters from 16-bit full-range RGB
      def self.from_rgb(pixels, matrix:, range:)
        return "format=gbrp16le" if pixels == "gbrp16le"

        legal = range == Colour::SignalRange::LEGAL
        convert = "zscale=f=bicubic:min=gbr:rin=full:m=#{MATRICES.fetch(matrix)}:r=#{legal ? "limited" : "full"}"
        ["format=gbrp16le", convert, "format=#{pixels}", *(held(pixels) if legal && matrix != "gbr")].join(",")
      end

      # At hard edges differences of colour that are made fewer ring a little.
      def self.held(pixels)
        times = 2**(pixels[/p(\d+)/, 1].to_i.nonzero? || 8).-(8)
        [[LEGAL_LUMA, 1], [LEGAL_CHROMA, 6]].map { |(low, high), planes| "limiter=min=#{low * times}:max=#{high * times}:planes=#{planes}" }
      end
      private_class_method :held

      private

      # @return [Array<Integer>] the raster that it is scaled to
      def scaled(width, height, fit)
        return [width, height] if fit == "stretch"

        ratios = [width.fdiv(@width), height.fdiv(@height)]
        wide, high = [@width, @height].map { |edge| [(edge * ((fit == "fill") ? ratios.max : ratios.min)).round, 1].max }
        ((wide - width).abs <= SAME_SHAPE && (high - height).abs <= SAME_SHAPE) ? [width, height] : [wide, high]
      end

      def framed(width, height, wide, high)
        return [] if [wide, high] == [width, height]
        return ["pad=#{width}:#{height}:#{(width - wide) / 2}:#{(height - high) / 2}:black"] if wide <= width && high <= height

        ["crop=#{width}:#{height}:#{(wide - width) / 2}:#{(high - height) / 2}"]
      end

      def matrix_of(told, primaries)
        return "gbr" unless luma?
        return told if MATRICES.key?(told) && told != "gbr"
        raise ParameterError.new(path: "matrix", expected: (MATRICES.keys - ["gbr"]).join(", "), found: told) if told
        return "bt2020nc" if primaries == "bt2020"

        (@width <= STANDARD_DEFINITION.first && @height <= STANDARD_DEFINITION.last) ? "smpte170m" : "bt709"
      end

      # The same numbers in planes that libzimg takes; grey stands in all three. Of odd rasters
      # it takes no planes that are smaller than others.
      def planes
        pattern, planar = PLANAR.find { |one, _| one.match?(pixel_format) }
        found = pattern&.match(pixel_format)
        name = found ? planar.gsub(/\\\d/) { |place| found[place[1].to_i] }.sub(/ple\z/, "p") : pixel_format
        return "format=#{name},mergeplanes=0x000000:#{name.sub("gray", "gbrp")}" if grey?

        odd = luma? && (@width.odd? || @height.odd?)
        odd ? "format=#{name},scale=flags=bicubic+accurate_rnd,format=#{name.sub(/\Ayuvj?4\d\d/, "yuv444")}" : "format=#{name}"
      end

      # Reduced without ringing, enlarged without softness; at its own size only differences
      # of colour are brought to the raster of luma.
      def filter(width, height) = (width < @width || height < @height) ? "bilinear" : "bicubic"
    end
  end
end
