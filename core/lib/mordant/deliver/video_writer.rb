# frozen_string_literal: true

require "fileutils"

module Mordant
  module Deliver
    # Writes a video file from frames that come in any order from anywhere. Frames lie in a
    # folder beside the file, first each by itself, then part by part; when all are there the
    # parts are made one. What is in the folder is whole, so that a killed writer loses the
    # frame it was on.
    class VideoWriter
      # Seconds in which an encoder may finish no frame.
      PATIENCE = 600

      attr_reader :sheet, :path

      # @param rate [Rational]
      # @param first [Integer] record frame that is the first one
      def initialize(sheet, path:, rate:, first:)
        @sheet, @path, @rate, @first = sheet, path, rate, first
      end

      def open = FileUtils.mkdir_p(folder)

      # @return [String] where frames and parts lie until the file is whole
      def folder = File.join(File.dirname(path), ".#{File.basename(path)}.frames")

      def has?(record) = File.exist?(frame_file(record)) || parts.any? { |from, count| (from...(from + count)).cover?(record) } || File.exist?(path)

      # @raise [SystemCallError]
      def write(record, frame, _facts)
        keep_planes(record, Media::Integers.planes(frame, 16, dither: sheet.dither(record), of: bits).to_binary)
      end

      # @return [Boolean] frames are kept as planes of 16-bit codes
      def planes? = true

      # @return [Integer] of the codes of the file
      def bits = [sheet.format.bits, 16].min

      # @param planes [String] green, blue, red of 16 bits
      # @raise [SystemCallError]
      def keep_planes(record, planes)
        partial = "#{frame_file(record)}.#{Process.pid}.part"
        File.binwrite(partial, planes)
        File.rename(partial, frame_file(record))
      ensure
        FileUtils.rm_f(partial) if partial
      end

      # Makes the frames of a stretch one part.
      #
      # @raise [MediaError]
      def seal(first, count)
        return if File.exist?(part_file(first, count)) || File.exist?(path)

        partial = "#{part_file(first, count)}.#{Process.pid}.part"
        Media::Command.feed(["ffmpeg", *QUIET, "-f", "rawvideo", "-pix_fmt", "gbrp16le", "-s", "#{sheet.width}x#{sheet.height}", "-framerate", @rate.to_s, "-i", "pipe:0",
          "-vf", filters, *sheet.format.part(sheet), "-f", "nut", "file:#{partial}"], path:) do |io|
          (first...(first + count)).each { |record| IO.copy_stream(frame_file(record), io) }
        end
        File.rename(partial, part_file(first, count))
        (first...(first + count)).each { |record| FileUtils.rm_f(frame_file(record)) }
      ensure
        FileUtils.rm_f(partial) if partial
      end

      # Makes the whole of the parts.
      #
      # @param timecode [Cut::Timecode] of the first frame
      # @param reel [String, nil]
      # @param light [Hash, nil] see LightLevels.over
      # @param audio [String, nil] a file with the sound
      # @yieldparam done [Integer] frames
      # @raise [MediaError]
      def finish(timecode:, reel: nil, light: nil, audio: nil)
        return if File.exist?(path)

        partial = File.join(folder, "whole.part")
        File.write(list, parts.map { |part| entry(*part) }.join)
        arguments = ["ffmpeg", *QUIET, "-progress", "pipe:1", *(["-threads", "1"] if sheet.large?), "-f", "concat", "-safe", "0", "-i", list, *(audio ? ["-i", "file:#{audio}"] : []), "-map", "0:v:0",
          *(audio ? ["-map", "1:a:0", "-c:a", sheet.format.sound] : []),
          *sheet.format.whole(sheet, rate: @rate, light:), *sheet.format.container(sheet, timecode:, reel:), "file:#{partial}"]
        Media::Command.stream(arguments, path:, limit: PATIENCE) do |io|
          io.each_line { |line| yield $1.to_i if block_given? && line =~ /\Aframe=\s*(\d+)/ }
        end
        keep(partial)
      end

      # Makes frames that are missing of a stretch by ffmpeg alone, each whole or not there. One
      # that cannot be made is left to #write, whose caller knows what to do about it.
      #
      # @param bulk [Bulk]
      # @param records [Range<Integer>]
      # @param frame [Integer] of the source, the first one's
      # @yieldparam done [Integer] frames that there are now
      def draw(bulk, records, frame:)
        open
        at = records.find { |record| !has?(record) } or return
        bulk.open(frame: frame + at - records.begin, record: at, rate: @rate, width: sheet.width, height: sheet.height, dither: sheet.dither?) do |arguments|
          drawing = ["ffmpeg", *QUIET, "-xerror", "-progress", "pipe:1", *arguments, "-frames:v", (records.end - at).to_s, "-fps_mode", "passthrough",
            "-pix_fmt", "gbrp16le", "-c:v", "rawvideo", "-f", "image2", "-atomic_writing", "1", "-start_number", at.to_s, File.join(folder.gsub("%", "%%"), "g%08d")]
          Media::Command.stream(drawing, path:) do |outflow|
            outflow.each_line { |line| yield at - records.begin + $1.to_i if block_given? && line =~ /\Aframe=\s*(\d+)/ }
          end
        end
      rescue MediaError
        raise if has?(records.end - 1) # all are there, and yet something is wrong
      end

      # @param records [Array<Integer>] frames that are to be made again; parts with one of them go whole
      def forget(records)
        old = (Dir.exist?(folder) ? parts : []).select { |from, count| records.any? { |record| (from...(from + count)).cover?(record) } }
        FileUtils.rm_f([path, *records.map { |record| frame_file(record) }, *old.map { |part| part_file(*part) }])
      end

      def abandon = FileUtils.rm_rf(folder)

      private

      QUIET = ["-v", "error", "-y", "-nostdin", "-protocol_whitelist", "file,pipe"].freeze
      private_constant :QUIET

      def keep(partial)
        File.link(partial, path) # unlike a rename, refuses to overwrite
        FileUtils.rm_rf(folder)
      end

      # 4:2:0 and 4:2:2 want even edges; what is missing is black.
      def filters = ["pad=ceil(iw/2)*2:ceil(ih/2)*2:color=black", sheet.format.filter(sheet)].drop(sheet.format.rgb? ? 1 : 0).join(",")

      def frame_file(record) = File.join(folder, "g#{record.to_s.rjust(8, "0")}")

      def part_file(first, count) = File.join(folder, "p#{first.to_s.rjust(8, "0")}-#{count}.nut")

      # With its length, of which a part itself tells nothing; rounded so that no error adds up.
      def entry(first, count)
        from, to = [first, first + count].map { |record| ((record - @first) / @rate * 1_000_000).round }
        "file #{Media::Command.listed(part_file(first, count))}\nduration #{to - from}us\n"
      end

      def list = File.join(folder, "parts.txt")

      # @return [Array<Array(Integer, Integer)>] first and count of each, in order
      def parts = Dir.children(folder).filter_map { |name| name[/\Ap(\d+)-(\d+)\.nut\z/] && [$1.to_i, $2.to_i] }.sort
    end
  end
end
