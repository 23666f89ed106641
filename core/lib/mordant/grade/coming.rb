# frozen_string_literal: true

module Mordant
  module Grade
    # A picture of a source whose pixels are made when somebody asks for them: what files are
    # to hold may be made of its codes at once instead (see Deliver::Straight).
    class Coming < Frame
      # @return [Numo::UInt16] [3, n] of the source
      attr_reader :codes
      # @return [Array<Pointwise::Chain>] that they go through, one after the other
      attr_reader :chains

      # @param codes [Numo::UInt16] [3, width * height]; not to be written to while this lives
      # @param chains [Array<Pointwise::Chain>] one or more
      def initialize(codes, chains, width:, height:, encoding:)
        @codes, @chains, @width, @height, @encoding = codes, chains, width, height, encoding
        @place = Place.whole(width, height)
      end

      # @return [Numo::SFloat] [3, width * height]
      def rgb
        @rgb ||= chains.drop(1).reduce(chains.first.from_codes(codes)) do |made, chain|
          chain.call(made).tap { made.free }
        end
      end

      # @return [Boolean] nobody has asked for its pixels yet
      def coming? = @rgb.nil?

      # @see Frame#through
      def through(chain, encoding:)
        coming? ? Coming.new(codes, [*chains, chain], width:, height:, encoding:) : super
      end
    end
  end
end
