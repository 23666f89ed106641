# frozen_string_literal: true

module Mordant
  module Media
    # Makes the FrameIndex of a video from its packets, which are read but not decoded.
    class IndexReading
      ENTRIES = "packet=pts,dts,flags:stream=time_base,avg_frame_rate:format=format_name"
      DISCARDED = "D" # an edit list leaves it out
      KEY = "K"
      BEYOND = 16 # frames decoded past the first keyframe, to see which of those before it can be had

      Packet = Struct.new(:time, :key)

      # @param path [String]
      def initialize(path)
        @path = path
      end

      # @return [FrameIndex]
      # @raise [MediaError]
      def call
        stamp = FrameIndex.stamp(@path)
        packets = read
        raise MediaError.new(@path, "there is no picture in it; it may be cut short, copy it again") if packets.empty?
        return counted(stamp) if packets.any? { |packet| packet.time.nil? }

        packets = decodable(packets.sort_by(&:time).uniq(&:time))
        keys = packets.each_index.select { |number| packets[number].key }
        FrameIndex.new(times: packets.map(&:time), keys: (keys.size == packets.size) ? nil : keys, time_base:, stamp:, tabled: tabled?)
      end

      private

      # In the order of the file. Where every packet is a picture by itself, its place is its time.
      def read
        rows = []
        probe(["-show_entries", ENTRIES, "-of", "csv"]) do |line|
          kind, *values = line.strip.split(",")
          (kind == "packet") ? rows << values : about[kind] ||= values
        end
        rows.reject! { |_, _, flags| flags.to_s.include?(DISCARDED) }
        alone = rows.all? { |_, _, flags| flags.to_s.include?(KEY) }
        rows.map do |pts, dts, flags|
          time = Integer(pts, 10, exception: false)
          time = Integer(dts.to_s, 10, exception: false) if time.nil? && alone
          Packet.new(time, flags.to_s.include?(KEY))
        end
      end

      # Pictures before the first keyframe may lean on what the file does not hold.
      def decodable(packets)
        first = packets.index(&:key) or raise(MediaError.new(@path, "there is no keyframe in it; it may be cut short, copy it again"))
        return packets if first.zero?

        shown = frames(["-read_intervals", "%+##{first + BEYOND}"])
        packets.each_with_index.filter_map { |packet, number| packet if number >= first || shown.include?(packet.time) }
      end

      # Of a container without presentation times: all is decoded once, and counted.
      def counted(stamp)
        times = frames([])
        raise MediaError.new(@path, "no frame of it can be decoded; copy it again") if times.empty?

        rising = times.each_cons(2).all? { |a, b| b > a }
        FrameIndex.new(times: rising ? times : times.each_index.to_a, keys: [0], time_base: rising ? time_base : 1 / Rational(about.fetch("stream").first),
          stamp:, seekable: false, tabled: false)
      end

      def frames(arguments)
        times = []
        probe([*arguments, "-show_entries", "frame=best_effort_timestamp", "-of", "csv=p=0"]) do |line|
          line.strip.split(",").first&.then { |time| times << Integer(time, 10, exception: false) }
        end
        times.each_with_index.map { |time, number| time || number }
      end

      def probe(arguments, &)
        Command.stream([*Command::PROBE, "-select_streams", "V:0", *arguments, "file:#{@path}"], path: @path) { |outflow| outflow.each_line(&) }
      end

      # Values of ffprobe by section: of the stream its rate and time base.
      def about = @about ||= {}

      def time_base = Rational(about.fetch("stream")[1])

      def tabled? = (about["format"].join(",").delete('"').split(",") & FrameIndex::TABLED).any?
    end
  end
end
