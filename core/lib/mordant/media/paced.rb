# frozen_string_literal: true

module Mordant
  module Media
    # A clip at another rate, by time: each frame shows what the clip shows in its middle, so
    # that frames are left out or stand for longer, and the clip lasts as long as before.
    class Paced
      # @param reader [#each, #frame]
      # @param from [Rational] frames a second of the clip
      # @param to [Rational] frames a second wanted
      # @param size [Integer] frames of the clip
      def initialize(reader, from:, to:, size:)
        @reader, @pace, @size = reader, from / to, size
      end

      # @return [Integer] frames that a clip has then
      def self.frames(size, from:, to:) = [(size * to / from).round, 1].max

      # @param number [Integer] frame
      # @return [Integer] the clip's frame
      def at(number) = ((number + Rational(1, 2)) * @pace).floor.clamp(0, @size - 1)

      # @see Reader#each
      # @raise [MediaError]
      def each(first:, count:, width:, height:)
        wanted = (first...(first + count)).map { |number| at(number) }
        place = wanted.first
        left = wanted.dup
        return 0 if wanted.empty?

        @reader.each(first: place, count: wanted.last - place + 1, width:, height:) do |codes|
          yield codes while left.first == place && left.shift
          place += 1
        end
        count
      end

      # @return [Codes]
      def frame(number, width:, height:) = @reader.frame(at(number), width:, height:)
    end
  end
end
