# frozen_string_literal: true

module Mordant
  module Media
    # Asks a file what it is.
    class Probe
      EXTENSIONS = %w[.mov .mp4 .mxf .mkv .m4v .avi .webm].freeze
      # Sensor data before development is outside what this application does.
      RAW_EXTENSIONS = %w[.dng .arw .nef .cr2 .cr3 .raf .rw2 .crm].freeze
      LARGEST = 16_384 # pixels on an edge
      SEQUENCE_RATE = Rational(24)

      # @param path [String] a video, or a sequence in brackets
      # @return [Facts]
      # @raise [MediaError] with the reason
      def self.call(path) = new(path).facts

      def initialize(path)
        @path = path
        @sequence = Sequence.parse(path)
      end

      def facts
        refuse
        stream = video
        rate = rate_of(stream)
        frames = @sequence ? @sequence.frames : count(stream, rate)
        refuse_size(stream, frames)
        Facts.new(width: stream["width"], height: stream["height"], rate:, frames:, start: tag("timecode"),
          reel: tag("reel_name") || tag("reel"), codec: stream["codec_name"], pixel_format: stream["pix_fmt"],
          bit_depth: depth(stream), range: {"tv" => "legal", "pc" => "full"}[stream["color_range"]],
          primaries: colour_tag(stream, "color_primaries"), transfer: colour_tag(stream, "color_transfer"), matrix: colour_tag(stream, "color_space"),
          encoding: declared, camera: tag("camera"), scene: tag("scene"), take: tag("take"))
      end

      private

      def refuse
        if RAW_EXTENSIONS.include?(File.extname(@path).downcase)
          raise MediaError.new(@path, "sensor-raw files are not developed here; bring it as a log-encoded video or sequence")
        end
        file = @sequence ? @sequence.file(@sequence.first) : @path
        raise MediaError.new(@path, "the file is not there") unless File.file?(file)
        raise MediaError.new(@path, "the file is empty") if File.zero?(file)
        return unless @sequence&.missing&.any?

        raise MediaError.new(@path, "frames missing from the sequence: #{spans(@sequence.missing)}")
      end

      # @return [String] such as "12-14, 20"
      def spans(numbers)
        numbers.slice_when { |a, b| b != a + 1 }
          .map { |run| (run.size == 1) ? run.first.to_s : "#{run.first}-#{run.last}" }.join(", ")
      end

      def document
        @document ||= begin
          file = @sequence ? @sequence.file(@sequence.first) : @path
          arguments = %w[ffprobe -v error -protocol_whitelist file,pipe -print_format json -show_format -show_streams]
          JSON.parse(Command.run([*arguments, "-i", "file:#{file}"], path: @path))
        end
      end

      def video
        document.fetch("streams", []).find { |stream| stream["codec_type"] == "video" } ||
          raise(MediaError.new(@path, "there is no picture in it; it may be cut short, copy it again"))
      end

      def refuse_size(stream, frames)
        edge = [stream["width"].to_i, stream["height"].to_i]
        unless edge.all? { |pixels| pixels.between?(1, LARGEST) }
          raise MediaError.new(@path, "its raster of #{edge.join("x")} is outside 1..#{LARGEST}")
        end
        raise MediaError.new(@path, "it has no frames") unless frames.positive?
      end

      def rate_of(stream)
        return SEQUENCE_RATE if @sequence

        text = [stream["r_frame_rate"], stream["avg_frame_rate"]].find { |rate| rate && !rate.match?(%r{\A0/|/0\z}) }
        text ? Rational(text) : raise(MediaError.new(@path, "it does not say its frame rate"))
      end

      def count(stream, rate)
        counted = stream["nb_frames"].to_i
        return counted if counted.positive?

        seconds = Float(stream["duration"] || document.dig("format", "duration"), exception: false)
        raise MediaError.new(@path, "it does not say how long it is; it may be cut short, copy it again") unless seconds

        (seconds * rate).round
      end

      def depth(stream)
        bits = stream["bits_per_raw_sample"].to_i
        return bits if bits.positive?

        found = stream["pix_fmt"].to_s[/(?:p|rgb|bgr|gray|rgba)(9|10|12|14|16|48|64)(?:le|be)?\z/, 1].to_i
        {0 => 8, 48 => 16, 64 => 16}.fetch(found, found)
      end

      def colour_tag(stream, name) = stream[name].then { |tag| tag unless tag.nil? || %w[unknown unspecified reserved].include?(tag) }

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
