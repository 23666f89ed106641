# frozen_string_literal: true

module Mordant
  module Cut
    # A frame count written as hours, minutes, seconds and frames.
    #
    # Source: SMPTE ST 12-1:2014. Drop frame exists at 30000/1001 and 60000/1001;
    # the nominal rate is the rate rounded up. Immutable.
    class Timecode
      include Comparable

      FORMAT = /\A(\d{2}):([0-5]\d):([0-5]\d)([:;.])(\d{2,3})\z/
      DAY_HOURS = 24

      # @return [Integer] frames since midnight, 0 up to a day
      attr_reader :frames
      # @return [Rational] frames a second
      attr_reader :rate

      # @param text [String] "HH:MM:SS:FF", ";" before the frames for drop frame
      # @param rate [Rational]
      # @raise [ParameterError]
      def self.parse(text, rate)
        parts = FORMAT.match(text.to_s)
        hours, minutes, seconds, frames = parts && [1, 2, 3, 5].map { |i| parts[i].to_i }
        nominal = rate.to_r.ceil
        unless parts && hours < DAY_HOURS && frames < nominal
          raise ParameterError.new(path: "timecode", expected: "HH:MM:SS:FF at #{nominal} frames", found: text)
        end
        drop = parts[4] == ";"
        count = ((hours * 60 + minutes) * 60 + seconds) * nominal + frames
        count -= dropped_before(hours * 60 + minutes, nominal) if drop
        new(count, rate, drop:)
      end

      # Frame numbers left out by the given minute of the day: two (four at 60)
      # at the start of every minute but each tenth.
      def self.dropped_before(minute, nominal)
        (minute - minute / 10) * (nominal / 15)
      end

      # @raise [ParameterError] of drop frame at a rate that has none
      def initialize(frames, rate, drop: false)
        @rate = rate.to_r
        if drop && !(@rate.denominator == 1001 && (nominal % 30).zero?)
          raise ParameterError.new(path: "timecode", expected: "drop frame at 30000/1001 or 60000/1001 only", found: @rate)
        end
        @drop = drop
        @frames = frames % day
        freeze
      end

      def drop? = @drop

      # @return [Timecode] that many frames later
      def +(other) = Timecode.new(frames + other.to_i, rate, drop: drop?)

      # The same time of day counted at another rate; drop frame stays where that rate has it.
      #
      # @param rate [Rational]
      # @return [Timecode]
      def at(rate)
        return self if rate == self.rate

        hours, minutes, seconds, frame = fields
        there = rate.to_r.ceil
        frame = frame * there / nominal
        drop = drop? && rate.to_r.denominator == 1001 && (there % 30).zero?
        frame = [frame, there / 15].max if drop && seconds.zero? && minutes % 10 != 0
        Timecode.parse(format("%02d:%02d:%02d%s%02d", hours, minutes, seconds, drop ? ";" : ":", frame), rate)
      end

      def <=>(other) = frames <=> other.frames

      def to_i = frames

      # @return [Array<Integer>] hours, minutes, seconds, frames as written
      def fields
        count = drop? ? frames + skipped : frames
        seconds, frame = count.divmod(nominal)
        minutes, second = seconds.divmod(60)
        [*minutes.divmod(60), second, frame]
      end

      def to_s
        hours, minutes, seconds, frame = fields
        format("%02d:%02d:%02d%s%02d", hours, minutes, seconds, drop? ? ";" : ":", frame)
      end

      # Time and flags as SMPTE ST 12-1 packs them (binary coded decimal), as in
      # OpenEXR's timeCode attribute.
      #
      # @return [Integer] 32 bits
      def smpte_word
        hours, minutes, seconds, frame = fields.map { |n| n.to_s.to_i(16) }
        frame | ((drop? ? 1 : 0) << 6) | (seconds << 8) | (minutes << 16) | (hours << 24)
      end

      private

      def nominal = rate.ceil

      def day
        all = DAY_HOURS * 3600 * nominal
        @drop ? all - Timecode.dropped_before(DAY_HOURS * 60, nominal) : all
      end

      # Numbers left out up to this frame.
      def skipped
        lost = nominal / 15
        ten = 600 * nominal - 9 * lost
        tens, rest = frames.divmod(ten)
        within = (rest < 60 * nominal) ? 0 : (rest - 60 * nominal) / (60 * nominal - lost) + 1
        (tens * 9 + within) * lost
      end
    end
  end
end
