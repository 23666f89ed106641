# frozen_string_literal: true

require "vips"

module Mordant
  module Media
    # Portable network graphics (ISO/IEC 15948).
    module Png
      # Quick rather than small: grain hardly compresses, and a screen waits.
      COMPRESSION = 0

      module_function

      # @param frame [Frame] display code values; held to 0.0..1.0, NaN becomes 0
      # @param bits [Integer] 8 or 16
      # @param dither [Deliver::Dither, nil]
      # @return [String] the file's bytes
      def encode(frame, bits: 8, compression: COMPRESSION, dither: nil)
        of(Integers.interleave(frame, bits, dither:).to_binary, frame.width, frame.height, bits:, compression:)
      end

      # @param codes [String] interleaved, see Integers
      # @return [String] the file's bytes
      def of(codes, width, height, bits:, compression: COMPRESSION) = vips(codes, width, height, bits).write_to_buffer(".png", compression:, filter: :none, strip: true)

      # The picture again in fewer bytes, every one of its pixels near what it was; for a network.
      #
      # @param data [String] PNG
      # @return [String] JPEG without reduced colour
      def jpeg(data) = Vips::Image.new_from_buffer(data, "").write_to_buffer(".jpg", Q: JPEG_QUALITY, subsample_mode: :off)
      JPEG_QUALITY = 90

      # @return [Vips::Image] interleaved integers
      def image(frame, bits, dither: nil) = vips(Integers.interleave(frame, bits, dither:).to_binary, frame.width, frame.height, bits)

      def vips(codes, width, height, bits)
        format, space = (bits == 8) ? %i[uchar srgb] : %i[ushort rgb16]
        Vips::Image.new_from_memory(codes, width, height, 3, format).copy(interpretation: space)
      end
      private_class_method :vips
    end
  end
end
