# frozen_string_literal: true

require "mordant/vips"

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
        return PlainPng.file(frame, dither:) if bits == PlainPng::BITS && compression.zero?

        image(frame, bits, dither:).write_to_buffer(".png", compression:, filter: :none, strip: true)
      end

      # The picture again in fewer bytes, every one of its pixels near what it was; for a network.
      #
      # @param data [String] PNG
      # @return [String] JPEG without reduced colour
      def jpeg(data) = Vips::Image.new_from_buffer(data, "").write_to_buffer(".jpg", Q: JPEG_QUALITY, subsample_mode: :off)
      JPEG_QUALITY = 90

      # @return [Vips::Image] interleaved integers
      def image(frame, bits, dither: nil)
        format, space = (bits == 8) ? %i[uchar srgb] : %i[ushort rgb16]
        Vips::Image.new_from_memory(Integers.interleave(frame, bits, dither:).to_binary, frame.width, frame.height, 3, format).copy(interpretation: space)
      end
    end
  end
end
