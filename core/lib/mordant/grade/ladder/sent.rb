# frozen_string_literal: true

module Mordant
  module Grade
    class Ladder
      # A start picture as a screen is sent it.
      #
      # words: 16-bit red, green, blue, pixel by pixel, from the lowest to the highest value of range; range
      # and domain: lowest and highest red, green, blue, of the words and of what occurs.
      Sent = Struct.new(:words, :range, :domain, keyword_init: true) do
        # @param picture [Media::Codes, Frame] codes as decoded, or log codes of the working space
        # @param space [Colour::WorkingSpace]
        # @return [Sent]
        def self.of(picture, space)
          return new(words: picture.rgb.transpose.to_binary, range: Lut::Lattice::WHOLE, domain: picture.domain) if picture.is_a?(Media::Codes)

          shares, range = Ladder.shares(picture.rgb.clip(*Ladder.held(space)))
          new(words: Media::Integers.interleave(picture.with(shares), 16).to_binary, range:, domain: range)
        end

        # @param weights [Numo::SFloat] [n], 0..1
        # @return [String] 16-bit, pixel by pixel
        def self.weights(weights) = Numo::UInt16.cast((weights * 65_535 + 0.5).clip(0, 65_535)).to_binary
      end
    end
  end
end
