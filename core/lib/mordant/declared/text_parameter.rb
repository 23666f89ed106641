# frozen_string_literal: true

module Mordant
  class Declared
    # One declared parameter of a step that is a text: the id of an encoding, the path
    # of a LUT in the library, or one of a few words.
    class TextParameter
      SOURCES = %i[encoding lut reference negative print].freeze
      LONGEST = 300 # characters
      LONGEST_REFERENCE = 80

      attr_reader :name, :label, :neutral, :about

      # @param from [Symbol, Array<String>] one of SOURCES, or the words
      # @param neutral [String] what it is until something is chosen
      def initialize(name, label:, from:, neutral:, about:)
        @name, @label, @from, @neutral, @about = name, label, from, neutral, about
        freeze
      end

      def neutral_value = neutral

      # @param value [Object] as parsed from JSON
      # @param path [String] for the error
      # @return [String] frozen
      # @raise [ParameterError]
      def check(value, path)
        return value.dup.freeze if value == neutral || (value.is_a?(String) && fits?(value))

        raise ParameterError.new(path:, expected:, found: value)
      end

      # Stays as it is until the next one.
      def mix(a, _b, _share) = a

      # @return [String] one that is not neutral
      def example = {encoding: "acescct", lut: "warm.cube", reference: "1", negative: "petrel", print: "fulmar"}.fetch(@from) { (@from - [neutral]).first }

      # @return [Hash] from: "encoding", "lut", or the words
      def to_h = {name: name.to_s, label:, from: @from.is_a?(Array) ? @from : @from.to_s, neutral:, about:}

      private

      def fits?(value)
        case @from
        when :encoding then Colour::Encoding.known?(value) && Colour.encoding(value).pictures?
        when :reference then value.length <= LONGEST_REFERENCE
        when :negative, :print then Film::Materials.id?(value)
        when :lut then value.length <= LONGEST && Lut::Library.path?(value)
        else @from.include?(value)
        end
      end

      def expected
        {encoding: "the id of an encoding of pictures", lut: "a path below the LUT library, without ways upward", reference: "an id of at most #{LONGEST_REFERENCE} characters",
         negative: "the id of a negative", print: "the id of a print"}.fetch(@from) { @from.join(" or ") }
      end
    end
  end
end
