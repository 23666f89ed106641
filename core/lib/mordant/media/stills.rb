# frozen_string_literal: true

require "vips"

module Mordant
  module Media
    # Single pictures through libvips: PNG and TIFF of 8 or 16 bits,
    # and JPEG, which is only read. OpenEXR is written by EXR.
    module Stills
      WRITTEN = %w[.png .tif .tiff].freeze
      READABLE = [*WRITTEN, ".jpg", ".jpeg"].freeze
      LARGEST = 16_384 # pixels on an edge

      module_function

      # @param path [String]
      # @return [Codes] full-range 16-bit codes; transparency is left out
      # @raise [MediaError]
      def read(path)
        raise MediaError.new(path, "the file is not there") unless File.file?(path)
        unless READABLE.include?(File.extname(path).downcase)
          raise MediaError.new(path, "a still must be one of #{READABLE.join(", ")}")
        end
        image = Vips::Image.new_from_file(path, access: :sequential, fail_on: :truncated)
        raise MediaError.new(path, "larger than #{LARGEST} pixels on an edge") if [image.width, image.height].max > LARGEST

        codes(image)
      rescue Vips::Error => e
        raise MediaError.new(path, "it cannot be read: #{e.message.lines.first.to_s.strip}")
      end

      # A picture as large as a raster holds it, the rest black.
      #
      # @param path [String]
      # @param width [Integer] of the raster
      # @param height [Integer]
      # @return [Codes]
      # @raise [MediaError]
      def fitted(path, width:, height:)
        image = Vips::Image.new_from_file(path, fail_on: :truncated)
        scale = [width.fdiv(image.width), height.fdiv(image.height)].min
        image = image.resize(scale, kernel: :lanczos3) unless scale == 1
        return codes(image) if [image.width, image.height] == [width, height]

        codes(image.embed((width - image.width) / 2, (height - image.height) / 2, width, height))
      rescue Vips::Error => e
        raise MediaError.new(path, "it cannot be read: #{e.message.lines.first.to_s.strip}")
      end

      # A small copy to show.
      #
      # @param path [String]
      # @param width [Integer] pixels, at most
      # @return [String] an 8-bit PNG's bytes
      # @raise [MediaError]
      def small(path, width:)
        image = Vips::Image.thumbnail(path, width, size: :down, fail_on: :truncated)
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
