# frozen_string_literal: true

module Mordant
  # A value in a recipe or a request is missing, of the wrong kind, or out of range.
  class ParameterError < Error
    # @return [String] where the value stands, such as "steps[0].parameters.gain[2]"
    attr_reader :path
    # @return [String] what would have been right
    attr_reader :expected
    # @return [Object] what stood there
    attr_reader :found

    def initialize(path:, expected:, found:)
      @path, @expected, @found = path, expected, found
      super("#{path}: expected #{expected}, found #{found.inspect}")
    end
  end
end
