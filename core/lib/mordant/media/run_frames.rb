# frozen_string_literal: true

module Mordant
  module Media
    # The frames of a run of numbered files, by their number from 0.
    class RunFrames
      # @param sequence [Sequence]
      # @param path [String] in brackets
      # @param rate [Rational]
      def initialize(sequence, path:, rate: nil)
        @sequence, @path, @rate = sequence, path, rate || Probe::SEQUENCE_RATE
      end

      def size = @sequence.frames

      # @see VideoFrames#each
      # @raise [MediaError] of a frame that is missing, naming it
      def each(first:, count:, filter:, bytes:, every: 1, &block)
        return each_of_all(first, count, filter, bytes, every, &block) if every > 1

        last = first + count - 1
        at = first
        while at <= last
          present = @sequence.present_from(@sequence.first + at)
          raise MissingFrame.new(@path, @sequence.first + at) if present.zero?

          some = [present, last - at + 1].min
          read(at, some, filter, bytes, &block)
          at += some
        end
      end

      # @see VideoFrames#opening
      def opening(first)
        [[*Command::LIMITS, "-f", "image2", "-framerate", @rate.to_s, "-start_number", (@sequence.first + first).to_s, "-i", "file:#{@sequence.pattern}"], nil]
      end

      private

      def each_of_all(first, count, filter, bytes, every)
        number = -1
        each(first:, count: [(count - 1) * every + 1, 0].max, filter:, bytes:) { |data| yield data if ((number += 1) % every).zero? }
      end

      # The reader looks for the file after the last one too, so a complaint alone means nothing.
      def read(first, count, filter, bytes, &)
        input, = opening(first)
        done, complaint = TimedPipe.read(input, filter:, count:, bytes:, path: @path, strict: false, due: ->(step) { step * 1000 / @rate }, &)
        return if done == count

        raise MediaError.new(@path, "frame #{@sequence.first + first + done} cannot be decoded#{" (#{complaint})" if complaint}; copy it again")
      end
    end
  end
end
