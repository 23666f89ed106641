# frozen_string_literal: true

module Mordant
  # An id that no member of a family has.
  class UnknownIdError < Error
    attr_reader :family, :id

    # @param family [String] what was looked for, such as "encoding"
    # @param known [Array<String>] the ids there are
    def initialize(family, id, known)
      @family, @id = family, id
      super("no #{family} #{id.inspect}; there are #{known.sort.join(", ")}")
    end
  end
end
