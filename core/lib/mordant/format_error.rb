# frozen_string_literal: true

module Mordant
  # A file breaks the rules of its format.
  class FormatError < Error
    # @return [String] the file
    attr_reader :path
    # @return [Integer] line of a text file (from 1)
    attr_reader :line
    attr_reader :expected, :found

    def initialize(path:, line:, expected:, found:)
      @path, @line, @expected, @found = path, line, expected, found
      super("#{path}:#{line}: expected #{expected}, found #{found.inspect}")
    end
  end
end
