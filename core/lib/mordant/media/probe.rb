# frozen_string_literal: true

module Mordant
  module Media
    # Asks a file what it is.
    class Probe
      EXTENSIONS = %w[.mov .mp4 .mxf .mkv .m4v .avi .webm .ts .m2ts .mts .mpg].freeze
      # Sensor data before development is outside what this application does.
      RAW_EXTENSIONS = %w[.dng .arw .nef .cr2 .cr3 .raf .rw2 .crm].freeze
      LARGEST = 16_384 # pixels on an edge
      SEQUENCE_RATE = Rational(24)
      # Rates that footage has; one close to them is one of them, rounded by its container.
      RATES = [*[24, 30, 48, 60, 120].flat_map { |rate| [Rational(rate), Rational(rate * 1000, 1001)] }, 25r, 50r, 100r, 12r, 15r].freeze
      CLOSE = 2e-4 # of the rate
      OTHERS = 1.0 # seconds by which sound may be longer than pictures

      # @param path [String] a video, or a run of frames in brackets
      # @return [Facts]
      # @raise [MediaError] with the reason
      def self.call(path) = new(path).facts

      def initialize(path)
        @path = path
        @sequence = Sequence.parse(path)
      end

      # @return [Facts]
      # @raise [MediaError]
      def facts
        @facts ||= begin
          refuse
          stream = video
          refuse_raster(stream)
          found = Facts.new(width: stream["width"], height: stream["height"], rate: rate_of(stream), frames: @sequence ? @sequence.frames : index.size,
            variable: !@sequence && index.variable?, missing: @sequence&.missing.to_a.map { |gap| [gap.begin, gap.end] },
            start: tag("timecode") || exr&.timecode, reel: tag("reel_name") || tag("reel") || exr&.text("reelName"),
            codec: stream["codec_name"], pixel_format: stream["pix_fmt"],
            bit_depth: depth(stream), range: range_of(stream),
            primaries: colour_tag(stream, "color_primaries"), transfer: colour_tag(stream, "color_transfer"), matrix: colour_tag(stream, "color_space"),
            encoding: declared || exr&.encoding, camera: tag("camera"), scene: tag("scene"), take: tag("take"))
          refuse_numbers(found)
          refuse_short(stream, found) unless @sequence
          found
        end
      end

      # @return [FrameIndex] of a video
      # @raise [MediaError]
      def index = @index ||= FrameIndex.of(@path)

      private

      def refuse
        if RAW_EXTENSIONS.include?(File.extname(@path.b).downcase)
          raise MediaError.new(@path, "sensor-raw files are not developed here; bring it as a log-encoded video or sequence")
        end
        raise MediaError.new(@path, "its numbers are over #{Sequence::LONGEST} frames apart; take away the file that does not belong") if @sequence && @sequence.frames > Sequence::LONGEST
        if @sequence && @sequence.last > Sequence::LARGEST_NUMBER
          raise MediaError.new(@path, "its numbers are above #{Sequence::LARGEST_NUMBER}; give its files smaller ones")
        end

        raise MediaError.new(@path, "the file is not there") unless file && File.file?(file)
        raise MediaError.new(@path, "the file is empty") if File.zero?(file)
      end

      # The video, or a frame of the run.
      def file = @sequence ? @sequence.first_file : @path

      def document
        @document ||= JSON.parse(Command.run([*Command::PROBE, "-print_format", "json", "-show_format", "-show_streams", "-i", "file:#{file}"], path: @path))
      end

      # A cover picture is none of the film's.
      def video
        document.fetch("streams", []).find { |stream| stream["codec_type"] == "video" && stream.dig("disposition", "attached_pic") != 1 } ||
          raise(MediaError.new(@path, "there is no picture in it; it may be cut short, copy it again"))
      end

      def refuse_raster(stream)
        edge = [stream["width"].to_i, stream["height"].to_i]
        return if edge.all? { |pixels| pixels.between?(1, LARGEST) }

        raise MediaError.new(@path, "its raster of #{edge.join("x")} is outside 1..#{LARGEST}")
      end

      def refuse_numbers(facts)
        Coding.of(facts)
      rescue ParameterError => e
        raise MediaError.new(@path, (e.path == "matrix") ? "its colour matrix #{e.found} is not read; convert it to BT.2020 non-constant luminance or BT.709" : e.found)
      end

      # A file cut short still says how long it was.
      def refuse_short(stream, facts)
        own = seconds(stream["duration"]) || seconds((stream["tags"] || {})["DURATION"])
        told = own || seconds(document.dig("format", "duration")) or return
        held = (index.seconds(index.size - 1) - index.seconds(0) + 1 / facts.rate).to_f
        return if told - held <= [2.5 / facts.rate, own ? 0.0 : OTHERS].max

        raise MediaError.new(@path, format("it says it is %.2f seconds long and holds pictures of %.2f; it is cut short, copy it again", told, held))
      end

      # @return [Float, nil] of "12.5" or "00:00:12.5"
      def seconds(text) = text&.split(":")&.reverse&.each_with_index&.sum { |part, place| (Float(part, exception: false) || 0.0) * 60**place }

      def rate_of(stream)
        return exr&.rate || SEQUENCE_RATE if @sequence

        told = %w[r_frame_rate avg_frame_rate].filter_map { |name| Rational(stream[name]) if stream[name] && !stream[name].match?(%r{\A0/|/0\z}) }
        counted = index.rate
        found = (index.variable? ? counted : told.find { |rate| counted.nil? || (rate / counted - 1).abs < 0.02 } || counted)
        raise MediaError.new(@path, "it does not say its frame rate") unless found

        usual(found)
      end

      # Containers that count in milliseconds round what others tell exactly.
      def usual(rate)
        near = RATES.min_by { |one| (one / rate - 1).abs }
        rounding = (index.size > 1) ? (index.time_base / (index.seconds(index.size - 1) - index.seconds(0))).to_f : 0.0
        ((near / rate - 1).abs <= CLOSE + rounding) ? near : rate.rationalize(Rational(1, 1000))
      end

      def depth(stream)
        bits = stream["bits_per_raw_sample"].to_i
        return bits if bits.positive?

        found = stream["pix_fmt"].to_s[/(?:p|f|rgb|bgr|gray|rgba)(9|10|12|14|16|32|48|64)(?:le|be)?\z/, 1].to_i
        {0 => 8, 48 => 16, 64 => 16}.fetch(found, found)
      end

      def range_of(stream) = {"tv" => Colour::SignalRange::LEGAL, "pc" => Colour::SignalRange::FULL}[stream["color_range"]]

      def colour_tag(stream, name) = stream[name].then { |tag| tag unless tag.nil? || %w[unknown unspecified reserved].include?(tag) }

      # The head of an OpenEXR frame.
      def exr
        return unless @sequence && File.extname(@path.b).casecmp?(".exr")

        @exr ||= ExrHeader.new(file)
      end

      # The camera encoding, where a tag names one that is known.
      def declared
        id = tag("encoding")&.downcase
        id if id && Colour::Encoding.known?(id) && Colour.encoding(id).pictures?
      end

      # Tags of the file or of any of its streams; names are compared without case.
      def tag(name)
        sets = [document["format"], *document["streams"]].compact.map { |part| part["tags"] || {} }
        found = sets.filter_map { |tags| tags.find { |key, _| key.downcase == name }&.last }.first
        found.to_s.strip.then { |text| text unless text.empty? }
      end
    end
  end
end
