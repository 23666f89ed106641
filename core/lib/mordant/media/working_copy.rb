# frozen_string_literal: true

module Mordant
  module Media
    # A small copy of a clip for playing: at the raster of the screen, every frame by itself,
    # its codes rounded to 10 bits or more and otherwise untouched. What stands still on the
    # screen and what is delivered never comes from one.
    class WorkingCopy
      EXTENSION = ".copy.mkv"
      # Times its rate at which footage is decoded without one.
      QUICK = 2
      MEASURED = 48 # frames, from which the speed of decoding is judged, at most

      # @return [String]
      attr_reader :path

      # @param path [String] of the copy
      # @param rate [Rational] frames a second
      def initialize(path, rate:)
        @path, @rate = path, rate
      end

      # How fast a clip is decoded at a raster, in frames a second.
      #
      # @param reader [Reader]
      # @param frames [Integer] of the clip
      # @return [Float]
      # @raise [MediaError]
      def self.speed(reader, frames:, width:, height:)
        count = [frames, MEASURED].min
        started = nil
        seen = 0
        # the first frame also takes the time of opening
        reader.each(first: 0, count:, width:, height:) { started ? seen += 1 : started = Process.clock_gettime(Process::CLOCK_MONOTONIC) }
        seen.zero? ? Float::INFINITY : seen / (Process.clock_gettime(Process::CLOCK_MONOTONIC) - started)
      end

      # @param coding [Coding] of the clip
      # @param bits [Integer] of its codes
      # @return [String] planes of as many bits as keep its codes apart
      def self.pixels(coding, bits)
        return "gbrp14le" if coding.float? || bits > 12

        (bits > 10) ? "gbrp12le" : "gbrp10le"
      end

      # @param reader [Reader]
      # @param frames [Integer]
      # @param pixels [String] see .pixels
      # @yieldparam done [Integer] frames
      # @raise [MediaError, SystemCallError] with nothing left behind
      def write(reader, frames:, width:, height:, pixels:)
        partial = "#{@path}.#{Process.pid}.part"
        arguments = ["ffmpeg", "-v", "error", "-y", "-nostdin", "-f", "rawvideo", "-pix_fmt", "gbrp16le", "-s", "#{width}x#{height}", "-framerate", @rate.to_s, "-i", "pipe:0",
          "-vf", Coding.from_rgb(pixels, matrix: "gbr", range: Colour::SignalRange::FULL), "-c:v", "ffvhuff", "-pix_fmt", pixels, "-f", "matroska", "file:#{partial}"]
        Command.feed(arguments, path: @path) do |io|
          done = 0
          reader.each(first: 0, count: frames, width:, height:) do |codes|
            io.write(codes.planes)
            yield done += 1 if block_given?
          end
        end
        File.rename(partial, @path)
      ensure
        File.delete(partial) if partial && File.exist?(partial)
      end

      # @param facts [Facts, nil] of the copy, where they are known
      # @param index [FrameIndex, nil] likewise
      # @return [Reader]
      def reader(facts: nil, index: nil) = Reader.new(@path, rate: @rate, facts:, index:)

      def exist? = File.exist?(@path)
    end
  end
end
