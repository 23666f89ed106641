# frozen_string_literal: true

require "tmpdir"
require "mordant/vips"

module Mordant
  module Media
    # Single pictures: PNG, TIFF and JPEG through libvips, DPX and OpenEXR as frames of
    # sequences are read. What a file is, its first bytes say, never its name; nothing else
    # reaches a reader. OpenEXR is written by EXR.
    module Stills
      WRITTEN = %w[.png .tif .tiff].freeze
      READABLE = [*WRITTEN, ".jpg", ".jpeg"].freeze
      LARGEST = 16_384 # pixels on an edge
      MOST = 40_000_000 # pixels, as decoding holds them all
      LARGEST_FILE = 256 * 1024 * 1024 # bytes
      # Loader of libvips, or ending under which ffmpeg reads it, by first bytes.
      KINDS = {
        "\x89PNG\r\n\x1A\n".b => :png, "II*\0".b => :tiff, "MM\0*".b => :tiff, "\xFF\xD8\xFF".b => :jpeg, "SDPX".b => ".dpx", "XPDS".b => ".dpx", "v/1\x01".b => ".exr"
      }.freeze

      module_function

      # @param path [String]
      # @return [Codes] full-range 16-bit codes; transparency is left out, floats are held to 0.0..1.0
      # @raise [MediaError]
      def read(path)
        kind = kind_of(path)
        return sequence_frame(path, kind) if kind.is_a?(String)

        codes(opened(path, kind, access: :sequential))
      rescue Vips::Error => e
        raise MediaError.new(path, "it cannot be read: #{e.message.lines.first.to_s.strip}")
      end

      # @return [Symbol, String] of KINDS
      # @raise [MediaError] of anything else
      def kind_of(path)
        raise MediaError.new(path, "the file is not there") unless File.file?(path)
        raise MediaError.new(path, "larger than #{LARGEST_FILE / 1024 / 1024} MB") if File.size(path) > LARGEST_FILE

        head = File.binread(path, 16).to_s
        KINDS.find { |bytes, _| head.start_with?(bytes) }&.last || raise(MediaError.new(path, "it is no PNG, TIFF, JPEG, DPX or OpenEXR picture"))
      end

      # By its own loader, from its bytes, as names may say something to libvips.
      def opened(path, kind, **how)
        image = Vips::Image.public_send(:"#{kind}load_buffer", File.binread(path), fail_on: :truncated, **how)
        raise MediaError.new(path, "its #{image.width}x#{image.height} pixels are more than #{LARGEST} on an edge or #{MOST / 1_000_000} million in all; bring it smaller") unless holds?(image.width, image.height)

        image
      end

      # @return [Boolean] a picture of so many pixels is read
      def holds?(width, height) = [width, height].max <= LARGEST && width * height <= MOST

      # Under a plain name, as signs in names say something to readers of sequences.
      def sequence_frame(path, ending)
        Dir.mktmpdir("mordant") do |folder|
          plain = File.join(folder, "still#{ending}")
          File.symlink(File.expand_path(path), plain)
          frame_of(plain, path)
        end
      end

      def frame_of(plain, path)
        probe = Probe.new(plain)
        facts = probe.facts
        raise MediaError.new(path, "its #{facts.width}x#{facts.height} pixels are more than #{MOST / 1_000_000} million; bring it smaller") if facts.width * facts.height > MOST

        reader = Reader.new(plain, rate: facts.rate, facts:, index: -> { probe.index })
        found = reader.frame(0, width: facts.width, height: facts.height)
        return found unless reader.coding.float?

        values = Colour::Transfer::HalfCode.table[found.rgb].dup
        Codes.new(Numo::UInt16.cast(values.clip(0.0, 1.0) * 65_535 + 0.5), width: found.width, height: found.height)
      end

      # A picture as large as a raster holds it, the rest black.
      #
      # @param path [String] of a PNG, as those we keep are
      # @param width [Integer] of the raster
      # @param height [Integer]
      # @return [Codes]
      # @raise [MediaError]
      def fitted(path, width:, height:)
        image = opened(path, :png)
        scale = [width.fdiv(image.width), height.fdiv(image.height)].min
        image = image.resize(scale, kernel: :lanczos3) unless scale == 1
        return codes(image) if [image.width, image.height] == [width, height]

        codes(image.embed((width - image.width) / 2, (height - image.height) / 2, width, height))
      rescue Vips::Error => e
        raise MediaError.new(path, "it cannot be read: #{e.message.lines.first.to_s.strip}")
      end

      # A small copy to show.
      #
      # @param path [String] of a PNG
      # @param width [Integer] pixels, at most
      # @return [String] an 8-bit PNG's bytes
      # @raise [MediaError]
      def small(path, width:)
        image = opened(path, :png)
        image = image.thumbnail_image(width, size: :down)
        image = (image / 257).cast(:uchar) if image.format == :ushort
        image.copy(interpretation: :srgb).write_to_buffer(".png", strip: true)
      rescue Vips::Error => e
        raise MediaError.new(path, "it cannot be read: #{e.message.lines.first.to_s.strip}")
      end

      def codes(image)
        image = image.colourspace(:srgb) if image.interpretation == :cmyk
        raise Vips::Error, "channels of 8 or 16 bits are wanted, these are #{image.format}" unless %i[uchar ushort].include?(image.format)

        image = image.bandjoin([image, image]) if image.bands < 3
        image = image.extract_band(0, n: 3)
        image = (image.format == :uchar) ? (image.cast(:ushort) * 257).cast(:ushort) : image.cast(:ushort)
        Codes.from_interleaved(image.write_to_memory, width: image.width, height: image.height)
      end

      # @param frame [Frame] code values
      # @param path [String] .png, .tif or .tiff, 16 bits
      # @raise [MediaError]
      def write(frame, path)
        unless WRITTEN.include?(File.extname(path).downcase)
          raise MediaError.new(path, "a still is written as one of #{[*WRITTEN, ".exr"].join(", ")}")
        end
        Png.image(frame, 16).write_to_file(path)
      rescue Vips::Error => e
        raise MediaError.new(path, "it cannot be written: #{e.message.lines.first.to_s.strip}")
      end
    end
  end
end
