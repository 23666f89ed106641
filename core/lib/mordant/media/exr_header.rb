# frozen_string_literal: true

module Mordant
  module Media
    # What the head of an OpenEXR file says of its picture.
    #
    # Source: "OpenEXR File Layout", Academy Software Foundation; SMPTE ST 2065-4.
    class ExrHeader
      LONGEST = 1 << 20 # bytes of a head
      MOST = 500 # attributes
      LONG_NAMES = 255 # bytes
      # Furthest a chromaticity may lie from the one it is taken for.
      NEAR = 1e-3
      # Encodings of scene light by their primaries.
      LIGHT = {Colour::Primaries::AP0 => "aces2065-1", Colour::Primaries::AP1 => "acescg", Colour::Primaries::REC709 => "rec709-linear",
               Colour::Primaries::REC2020 => "rec2020-linear"}.freeze

      # @param path [String]
      # @raise [MediaError] of a head that is cut off or no OpenEXR
      def initialize(path)
        @path = path
        @bytes = File.binread(path, LONGEST).to_s
        damaged("it is no OpenEXR file") unless @bytes.byteslice(0, 4) == [EXR::MAGIC].pack("L<")
        @attributes = read
      end

      # @return [String, nil] id of the encoding its chromaticities stand for
      def encoding
        return "aces2065-1" if @attributes["acesImageContainerFlag"]&.unpack1("l<") == 1

        told = @attributes["chromaticities"]&.unpack("e8") or return
        LIGHT.find { |primaries, _| near?(primaries, told) }&.last
      end

      # @return [Rational, nil] frames a second
      def rate
        numerator, denominator = @attributes["framesPerSecond"]&.unpack("l<L<")
        Rational(numerator, denominator) if numerator&.positive? && denominator.positive?
      end

      # @return [String, nil] such as "01:00:00:00"
      def timecode
        word = @attributes["timeCode"]&.unpack1("L<") or return

        fields = [24, 16, 8, 0].zip([0x3f, 0x7f, 0x7f, 0x3f]).map { |shift, mask| format("%02x", (word >> shift) & mask) }
        text = (fields.all? { |field| field.match?(/\A\d\d\z/) }) ? fields : return
        text.first(3).join(":") + ((word[6] == 1) ? ";" : ":") + text.last
      end

      # @param name [String] such as "reelName"
      # @return [String, nil]
      def text(name) = @attributes[name]&.dup&.force_encoding("UTF-8")&.scrub&.strip.then { |text| text unless text.to_s.empty? }

      private

      def near?(primaries, told)
        [primaries.red, primaries.green, primaries.blue, primaries.white].flatten.zip(told).all? { |a, b| (a - b).abs < NEAR }
      end

      def read
        at = 8
        found = {}
        until @bytes.getbyte(at) == 0
          name, at = word(at)
          _, at = word(at)
          size = @bytes.byteslice(at, 4)&.unpack1("l<")
          damaged("its head is cut off at byte #{at}") unless size && size >= 0 && at + 4 + size < @bytes.bytesize && found.size < MOST
          found[name] = @bytes.byteslice(at + 4, size)
          at += 4 + size
        end
        found
      end

      def word(at)
        ending = @bytes.index("\0".b, at)
        damaged("its head is cut off at byte #{at}") unless ending && ending - at <= LONG_NAMES
        [@bytes.byteslice(at...ending), ending + 1]
      end

      def damaged(what) = raise(MediaError.new(@path, "#{what}; copy it again"))
    end
  end
end
