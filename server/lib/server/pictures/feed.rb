# frozen_string_literal: true

module Server
  module Pictures
    # What goes into a shot's plan at a record frame: the frame of its clip, or a test
    # picture in its place.
    class Feed
      attr_reader :shot

      # @return [String] encoding id
      attr_reader :encoding

      # @param shot [Shot]
      # @param encoding [String]
      # @yieldparam reduction [Integer] see Mordant::Media::Codes#reduce
      # @yieldreturn [Mordant::Media::Codes]
      def initialize(shot, encoding, &codes)
        @shot, @encoding, @codes = shot, encoding, codes
      end

      # @return [Mordant::Media::Codes]
      def codes(reduction = 1) = @codes.call(reduction)

      # @return [Boolean] its codes are light itself
      def linear? = Mordant::Colour.encoding(encoding).linear?
    end
  end
end
