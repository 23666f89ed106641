# frozen_string_literal: true

require "fileutils"

module Mordant
  module Deliver
    # Writes the frames of a sequence: whole files alone, each under its number, so that many
    # may write at once and whatever is there is good.
    class SequenceWriter
      DIGITS = 7 # of numbers by timecode
      SOURCE_DIGITS = 4 # of numbers as the source has them, at least

      attr_reader :sheet, :path

      # @param sheet [Sheet]
      # @param path [String] the folder
      # @param start [Cut::Timecode] of the first frame
      # @param first [Integer] record frame that is the first one
      # @param number [Integer, nil] of the first frame's file; nil: that of its timecode
      def initialize(sheet, path:, start:, first:, number: nil)
        @sheet, @path, @start, @first, @number = sheet, path, start, first, number
      end

      def open = FileUtils.mkdir_p(path)

      def has?(record) = File.exist?(file(record))

      # @param frame [Frame, Media::HalfPlanes] finished, in the view's encoding
      # @param facts [Media::FrameFacts]
      # @raise [SystemCallError]
      def write(record, frame, facts)
        bytes = sheet.format.bytes(frame, facts.with(name: File.basename(file(record))), options: sheet.options, dither: sheet.dither(record))
        partial = "#{file(record)}.#{Process.pid}.part"
        File.binwrite(partial, bytes)
        File.rename(partial, file(record))
        bytes.clear # which are large
      ensure
        FileUtils.rm_f(partial) if partial
      end

      # @see VideoWriter#planes?
      def planes? = false

      # Nothing is left to be done for a stretch.
      def seal(_first, _count) = nil

      # @return [String]
      def file(record) = File.join(path, "#{File.basename(path)}.#{number(record)}#{sheet.format.extension}")

      # @return [String] in the file's name
      def number(record)
        return (@number + record - @first).to_s.rjust(SOURCE_DIGITS, "0") if @number

        (@start + (record - @first)).frames.to_s.rjust(DIGITS, "0")
      end

      # Takes away what killed writers have left half written.
      def finish(**)
        FileUtils.rm_f(Dir.children(path).select { |name| name.end_with?(".part") }.map { |name| File.join(path, name) })
      end

      # @param records [Array<Integer>] frames that are to be made again
      def forget(records) = FileUtils.rm_f(records.map { |record| file(record) })

      def abandon = FileUtils.rm_rf(path)
    end
  end
end
