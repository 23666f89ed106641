# frozen_string_literal: true

require "zlib"

module Mordant
  module Media
    # Which pictures a video has, in the order they are seen: the presentation time of each,
    # and from which of them a decoder can begin. With it a frame number means one picture,
    # whatever a seek lands on. Immutable.
    #
    # A picture from which decoding may begin is a keyframe; pictures that are seen before it
    # but stored after it (leading pictures of an open group) are reached from the keyframe
    # before. Where a container keeps no presentation times, pictures are counted from the
    # start.
    class FrameIndex
      VERSION = 1
      # Containers that find a place by their own table; in others a seek may land late.
      TABLED = %w[mov matroska mxf avi].freeze

      # @return [Array<Integer>] presentation times in order, in units of time_base
      attr_reader :times
      # @return [Rational] seconds
      attr_reader :time_base
      # @return [String] size and time of change of the file it was made of
      attr_reader :stamp

      # @param path [String] a video
      # @return [FrameIndex]
      # @raise [MediaError]
      def self.of(path) = IndexReading.new(path).call

      # @param path [String]
      # @return [String] what changes when the file is written again
      # @raise [MediaError] of a file that is gone
      def self.stamp(path)
        stat = File.stat(path)
        "#{stat.size}-#{stat.mtime.to_i}.#{stat.mtime.nsec}"
      rescue Errno::ENOENT, Errno::ENOTDIR
        raise MediaError.new(path, "the file is not there any more; put it back or take the folder in again")
      end

      # @param bytes [String] of #dump
      # @return [FrameIndex, nil] nil of what an older version kept
      def self.load(bytes)
        head, body = Zlib.inflate(bytes).split("\n", 2)
        told = JSON.parse(head)
        return unless told["version"] == VERSION

        time = 0
        times = body.unpack("q<*").map { |step| time += step }
        new(times:, keys: told["keys"], time_base: Rational(told["time_base"]), stamp: told["stamp"], seekable: told["seekable"], tabled: told["tabled"])
      rescue Zlib::Error, JSON::ParserError
        nil
      end

      # @param times [Array<Integer>] rising
      # @param keys [Array<Integer>, nil] numbers of frames that are keyframes; nil: all are
      # @param seekable [Boolean] times can be relied on to find a frame
      # @param tabled [Boolean] see TABLED
      def initialize(times:, keys:, time_base:, stamp:, seekable: true, tabled: true)
        @times, @keys, @time_base, @stamp, @seekable, @tabled = times.freeze, keys.freeze, time_base, stamp, seekable, tabled
        freeze
      end

      # @return [Integer] frames
      def size = times.size

      def seekable? = @seekable

      # @return [Boolean] every frame is coded by itself
      def intra? = @keys.nil?

      # @return [Boolean] single frames can be had without those around them
      def apart? = intra? && seekable? && @tabled && size > 2 && times.first.zero? && !variable?

      # @return [Boolean] a seek lands where it is to
      def direct? = seekable? && @tabled

      # @param number [Integer] frame
      # @return [Integer] the frame at which a decoder begins for it
      def key_of(number) = intra? ? number : key_before(number, 0) || 0

      # Where to begin, to decode a frame surely.
      #
      # @param number [Integer] frame
      # @param back [Integer] keyframes earlier than needed
      # @return [Rational, nil] seconds to aim at; nil: the start of the file
      def begin_at(number, back: 0)
        return unless seekable?

        back += 1 unless @tabled
        key = intra? ? number - back : key_before(number, back)
        seconds(key) if key&.positive?
      end

      # @return [Rational] presentation time of a frame, seconds
      def seconds(number) = times[number] * time_base

      # @return [Boolean] frames do not follow each other at equal distances, beyond what
      #   the units of the container round off
      def variable?
        return false if size < 3

        mean = (times.last - times.first).fdiv(size - 1)
        times.each_cons(2).any? { |a, b| (b - a - mean).abs > [1.0, mean * 0.02].max }
      end

      # @return [Rational, nil] frames a second in the mean; nil of a single frame
      def rate = (Rational(size - 1) / (seconds(size - 1) - seconds(0)) if size > 1)

      # @return [String] to be kept
      def dump
        head = {version: VERSION, keys: @keys, time_base: time_base.to_s, stamp:, seekable: seekable?, tabled: @tabled}.to_json
        steps = [times.first, *times.each_cons(2).map { |a, b| b - a }]
        Zlib.deflate("#{head}\n".b << steps.pack("q<*"))
      end

      private

      def key_before(number, back)
        place = @keys.bsearch_index { |key| key > number } || @keys.size
        @keys[place - 1 - back] if place - 1 - back >= 0
      end
    end
  end
end
