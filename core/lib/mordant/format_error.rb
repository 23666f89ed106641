# frozen_string_literal: true

module Mordant
  # A file breaks the rules of its format.
  class FormatError < Error
    # @return [String] the file
    attr_reader :path
    # @return [Integer] line of a text file (from 1)
    attr_reader :line
    attr_reader :expected, :found

    LONGEST = 120 # characters that are shown of what was found

    def initialize(path:, line:, expected:, found:)
      @path, @line, @expected, @found = path, line, expected, found
      super("#{path}:#{line}: expected #{expected}, found #{FormatError.shown(found)}")
    end

    # @return [String] readable, whatever bytes it has, and no longer than fits a line
    def self.shown(found)
      words = found.is_a?(String) ? found.dup.force_encoding("UTF-8").scrub("?") : found
      text = words.is_a?(String) ? words[0, LONGEST].inspect : words.inspect[0, LONGEST]
      (words.is_a?(String) && words.length > LONGEST) ? "#{text} and more" : text
    end
  end
end
