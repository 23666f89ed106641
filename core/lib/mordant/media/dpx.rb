# frozen_string_literal: true

module Mordant
  module Media
    # DPX files of 10- or 16-bit RGB, version 2.0, big-endian.
    #
    # Source: SMPTE ST 268-1:2014. Ten bits are three to a word, filled at the low end
    # (method A); sixteen follow each other.
    class Dpx
      HEADER = 2048 # bytes
      GENERIC = 1664
      RGB = 50 # descriptor
      METHOD_A = 1
      NOTHING = 0xffffffff # of numbers and reals that are not told
      # Transfer and colorimetric codes by encoding; 0, of one's own choice, for all others.
      DESIGNATIONS = {"rec709-bt1886" => 6, "rec709" => 6, "bt709-camera" => 6}.freeze
      LARGEST = {10 => 1023, 16 => 65_535}.freeze

      # @param bits [Integer] 10 or 16
      # @raise [ParameterError]
      def initialize(bits:)
        raise ParameterError.new(path: "bits", expected: LARGEST.keys.join(" or "), found: bits) unless LARGEST.key?(bits)

        @bits = bits
      end

      # @param frame [Frame] display or log codes, full range; held to 0.0..1.0
      # @param facts [FrameFacts]
      # @param dither [Deliver::Dither, nil]
      # @return [String] the file's bytes
      def encode(frame, facts, dither: nil)
        header(frame, facts) << body(Integers.interleave(frame, @bits, dither:))
      end

      # @param codes [Numo::UInt16] [pixels, 3] of that many bits
      # @return [String]
      def body(codes)
        return codes.swap_byte.to_binary if @bits == 16

        wide = Numo::UInt32.cast(codes)
        ((wide[true, 0] << 22) | (wide[true, 1] << 12) | (wide[true, 2] << 2)).swap_byte.to_binary
      end

      # @return [String] HEADER bytes
      def header(frame, facts)
        size = HEADER + frame.size * ((@bits == 10) ? 4 : 6)
        head = file_part(size, facts) << image_part(frame) << orientation_part(frame, facts) << film_part(facts) << television_part(facts)
        (head.bytesize == HEADER) ? head : raise(ShapeError, "a DPX header of #{head.bytesize} bytes")
      end

      private

      def file_part(size, facts)
        ["SDPX", HEADER, "V2.0", size, 1, GENERIC, HEADER - GENERIC, 0, facts.name.to_s, (facts.written || Time.at(0)).utc.strftime("%Y:%m:%d:%H:%M:%SUTC"),
          "Mordant", facts.project.to_s, "", NOTHING, ""].pack("a4NZ8N5Z100Z24Z100Z200Z200NZ104")
      end

      def image_part(frame)
        designation = DESIGNATIONS.fetch(frame.encoding, 0)
        element = [0, 0, NOTHING, LARGEST.fetch(@bits), NOTHING, RGB, designation, designation, @bits,
          (@bits == 10) ? METHOD_A : 0, 0, HEADER, 0, 0, frame.encoding.to_s].pack("N5C4n2N3Z32")
        [0, 1, frame.width, frame.height].pack("n2N2") << element << ([NOTHING] * 5 + [255] * 4 + [65_535] * 2 + [NOTHING] * 3 + [""]).pack("N5C4n2N3Z32") * 7 << ("\0" * 52)
      end

      def orientation_part(frame, facts)
        [0, 0, frame.width / 2.0, frame.height / 2.0, frame.width, frame.height, facts.source.to_s, "", facts.reel.to_s, "",
          0, 0, 0, 0, 1, 1, ""].pack("N2g2N2Z100Z24Z32Z32n4N2Z28")
      end

      def film_part(facts)
        ["", "", "", "", "", "", facts.number || NOTHING, facts.count || NOTHING, 1, facts.rate.to_f, NOTHING, facts.name.to_s, facts.reel.to_s, ""]
          .pack("a2a2a2a6a4a32N3gNZ32Z100Z56")
      end

      def television_part(facts)
        [facts.timecode&.smpte_word || NOTHING, 0, 0, 255, 255, 0, NOTHING, NOTHING, facts.rate.to_f, NOTHING, NOTHING, *[NOTHING] * 5, ""]
          .pack("N2C4N2gN7Z76")
      end
    end
  end
end
