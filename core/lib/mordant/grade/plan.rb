# frozen_string_literal: true

module Mordant
  module Grade
    # A recipe compiled for a source: from its code values to log codes of the
    # working space. An Output goes on from there.
    #
    # Neutral and switched-off steps vanish, neighbouring operations fuse (see
    # Pointwise::Chain).
    class Plan
      attr_reader :recipe, :source, :space

      # @param recipe [Recipe]
      # @param source [String] encoding id of the source's code values
      # @raise [UnknownIdError]
      def initialize(recipe:, source:, space: Colour::WorkingSpace.default)
        @recipe, @source, @space = recipe, source, space
        @chain = Pointwise::Chain.new(operations)
      end

      # @return [Pointwise::Chain] from the source's code values to the working space
      attr_reader :chain

      # @param codes [Media::Codes]
      # @return [Frame] graded, in log codes of the working space
      def run(codes)
        codes.to_frame(chain.from_codes(codes.rgb), encoding: space.log)
      end

      # @param frame [Frame] in the source encoding
      # @return [Frame] graded, in log codes of the working space
      # @raise [ParameterError] of a frame in another encoding
      def apply(frame)
        unless frame.encoding == source
          raise ParameterError.new(path: "frame.encoding", expected: source, found: frame.encoding)
        end
        frame.with(chain.call(frame.rgb), encoding: space.log)
      end

      private

      def operations
        at = source
        list = recipe.entries.select(&:acts?).flat_map do |entry|
          before, at = convert(at, space.encoding_of(entry.step.class.domain)), space.encoding_of(entry.step.class.domain)
          before + entry.operations(space)
        end
        list + convert(at, space.log)
      end

      def convert(from, to) = Colour::Conversion.new(from:, to:).operations
    end
  end
end
