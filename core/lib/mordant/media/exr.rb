# frozen_string_literal: true

module Mordant
  module Media
    # OpenEXR scan-line files of half- or full-float RGB, zip compressed or plain.
    #
    # Source: "OpenEXR File Layout" and "Technical Introduction to OpenEXR",
    # Academy Software Foundation; SMPTE ST 2065-4 for the attributes of ACES
    # image containers.
    class EXR
      MAGIC = 20_000_630
      VERSION = 2
      COMPRESSIONS = {none: [0, 1], zip: [3, 16]}.freeze # code and scan lines a block
      DEPTHS = {half: [1, 2], float: [2, 4]}.freeze # code and bytes
      INCREASING_Y = 0

      # Each byte of a word as the difference to that of the word before it.
      #
      # @return [Pointwise::Kernel]
      def self.kernel
        @kernel ||= Pointwise::Kernel.new(%i[codes codes]) { |now, before| [now.low.from(before.low), (now >> 8).low.from((before >> 8).low)] }
      end

      # @param primaries [Colour::Primaries] for the chromaticities attribute
      # @param rate [Rational] for framesPerSecond
      # @param timecode [Cut::Timecode, nil] for timeCode
      # @param attributes [Hash{String => String}] further texts, such as "reelName"
      # @param depth [Symbol] of DEPTHS
      # @param compression [Symbol] of COMPRESSIONS
      def initialize(primaries:, rate:, timecode: nil, attributes: {}, depth: :half, compression: :zip)
        @primaries, @rate, @timecode, @attributes = primaries, rate, timecode, attributes
        @depth, @bytes = DEPTHS.fetch(depth)
        @compression, @lines = COMPRESSIONS.fetch(compression)
        @deflater = Deflater.new
      end

      # An ACES image container is ACES2065-1 in half floats without compression.
      def container? = @primaries == Colour::Primaries::AP0 && @bytes == 2 && @compression.zero?

      # @param frame [Frame, HalfPlanes] linear light; of half floats where that is the depth
      # @return [String] the file's bytes
      def encode(frame)
        head = header(frame)
        blocks = (0...frame.height).step(@lines).map { |top| block(frame, top) }
        offset = head.bytesize + 8 * blocks.size
        table = blocks.map { |bytes| offset.tap { offset += bytes.bytesize } }
        file = String.new(head << table.pack("Q<*"), capacity: offset, encoding: Encoding::BINARY)
        blocks.each_with_object(file) { |bytes, all| (all << bytes) && bytes.clear }
      end

      private

      def header(frame)
        window = [0, 0, frame.width - 1, frame.height - 1].pack("l<4")
        head = [MAGIC, VERSION].pack("L<2")
        own_attributes(window).merge(colour_attributes, text_attributes).sort.each do |name, (type, value)|
          head << name << 0 << type << 0 << [value.bytesize].pack("l<") << value
        end
        head << 0
      end

      def own_attributes(window)
        {"channels" => ["chlist", channels], "compression" => ["compression", [@compression].pack("C")],
         "dataWindow" => ["box2i", window], "displayWindow" => ["box2i", window],
         "lineOrder" => ["lineOrder", [INCREASING_Y].pack("C")], "pixelAspectRatio" => ["float", [1.0].pack("e")],
         "screenWindowCenter" => ["v2f", [0.0, 0.0].pack("e2")], "screenWindowWidth" => ["float", [1.0].pack("e")]}
      end

      def colour_attributes
        chromaticities = [@primaries.red, @primaries.green, @primaries.blue, @primaries.white].flatten.pack("e8")
        rate = [@rate.numerator, @rate.denominator].pack("l<L<")
        found = {"chromaticities" => ["chromaticities", chromaticities], "framesPerSecond" => ["rational", rate]}
        found["acesImageContainerFlag"] = ["int", [1].pack("l<")] if container?
        found["timeCode"] = ["timecode", [@timecode.smpte_word, 0].pack("L<2")] if @timecode
        found
      end

      def text_attributes = @attributes.transform_values { |text| ["string", text.b] }

      def channels
        list = %w[B G R].map { |name| "#{name}\0" + [@depth, 0, 1, 1].pack("l<L<l<2") }
        list.join.b << 0
      end

      # Lines of blue, green, red; the bytes split into low and high, each the
      # difference to the one before, then deflated, or kept plain if not smaller.
      def block(frame, top)
        rows = top...[top + @lines, frame.height].min
        plain = frame.is_a?(HalfPlanes) ? frame.lines(rows) : lines(frame, rows)
        return [top, plain.bytesize].pack("l<2") << plain if @compression.zero?

        split = predicted(plain)
        data = @deflater.smaller(split) || plain
        ([top, data.bytesize].pack("l<2") << data).tap { [plain, split, data].each(&:clear) } # which add up
      end

      def lines(frame, rows)
        range = (rows.begin * frame.width)...(rows.end * frame.width)
        lines = ((@bytes == 2) ? Numo::UInt16 : Numo::SFloat).new(rows.size, 3, frame.width).allocate
        HalfPlanes::ORDER.each_with_index do |channel, place|
          values = frame.rgb[channel, range]
          bits = Half.bits(values) if @bytes == 2
          lines[true, place, true] = (bits || values).reshape(rows.size, frame.width)
          bits&.free
        end
        lines.to_binary.tap { lines.free }
      end

      def predicted(plain)
        words = plain.bytesize / 2
        return quickly(plain, words) if words > 1 && EXR.kernel.worth?(words - 1)

        bytes = Numo::UInt8.from_binary(plain)
        split = bytes.reshape(bytes.size / 2, 2).transpose.dup.reshape(bytes.size)
        rise = split[1..] - split[0...-1] # bytes go round at 256
        split[1..] = (rise.inplace + 128).out_of_place!
        split.to_binary
      end

      # From the second word on all is alike; the first high byte follows the last low one.
      def quickly(plain, words)
        out, first = "\0".b * plain.bytesize, Pointwise::Memory.address(plain)
        EXR.kernel.run(words - 1, [first + 2, first], [1, words + 1].map { |place| Pointwise::Memory.address(out) + place })
        out.setbyte(0, plain.getbyte(0))
        out.setbyte(words, (plain.getbyte(1) - plain.getbyte(-2) + 128) & 0xff)
        out
      end
    end
  end
end
