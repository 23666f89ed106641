# frozen_string_literal: true

module Mordant
  module Media
    # A clip to look at, in which a slate stands for each frame that its run leaves out.
    class Slated
      CODES = [9_000, 21_000].freeze # of the slate's bars, of 65_535
      VALUES = [0.02, 0.1].freeze # of the same where a clip holds floats
      BARS = 9 # in the height

      # @param reader [Reader, Paced]
      # @param floats [Boolean] its codes are those of Colour::Transfer::HalfCode
      def initialize(reader, floats: false)
        @reader = reader
        @codes = floats ? Colour::Transfer::HalfCode.codes(Numo::SFloat[*VALUES]).to_a : CODES
      end

      # @return [Codes] bars at a slant
      def slate(width, height)
        dark, light = @codes
        at = Numo::Int32.new(height, width).seq
        lit = ((at % width + at / width) / [height / BARS, 1].max) % 2
        plane = Numo::UInt16.cast(lit.reshape(width * height) * (light - dark) + dark)
        Codes.new(Numo::NArray.vstack([plane] * 3), width:, height:)
      end

      # @see Reader#each
      # @raise [MediaError] of frames that are there and cannot be decoded
      def each(first:, count:, width:, height:)
        at = first
        until at == first + count
          begin
            @reader.each(first: at, count: first + count - at, width:, height:) do |codes|
              yield codes
              at += 1
            end
          rescue MissingFrame
            yield slate(width, height)
            at += 1
          end
        end
        count
      end
    end
  end
end
