# frozen_string_literal: true

module Mordant
  # A media file could not be read or written.
  class MediaError < Error
    # @return [String] the file
    attr_reader :path
    # @return [String] what was wrong and what can be done
    attr_reader :reason

    def initialize(path, reason)
      @path, @reason = [path, reason].map { |text| Library.shown(text.to_s) }
      super("#{@path}: #{@reason}")
    end
  end
end
