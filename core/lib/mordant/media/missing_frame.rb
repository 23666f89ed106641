# frozen_string_literal: true

module Mordant
  module Media
    # A frame that a run of numbered files leaves out.
    class MissingFrame < MediaError
      # @return [Integer] its number
      attr_reader :number

      def initialize(path, number)
        @number = number
        super(path, "frame #{number} is missing from the run; put it there, or deliver without it")
      end
    end
  end
end
