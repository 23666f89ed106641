# frozen_string_literal: true

module Mordant
  module Grade
    # Which part of a whole picture something is: a window, and pixels of the whole.
    Place = Struct.new(:window, :width, :height, keyword_init: true) do
      def self.whole(width, height) = new(window: Window.whole(width, height), width:, height:)

      def initialize(**)
        super
        freeze
      end
    end
  end
end
