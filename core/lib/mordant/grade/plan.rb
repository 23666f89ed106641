# frozen_string_literal: true

module Mordant
  module Grade
    # A recipe compiled for a source: from its code values to log codes of the
    # working space. An Output goes on from there.
    #
    # Neutral and switched-off steps vanish, neighbouring operations fuse (see
    # Pointwise::Chain).
    class Plan
      # A scene brought into a display-referred space is rendered with this.
      SCENE_TO_DISPLAY = "sdr-video-1.0"

      attr_reader :recipe, :source, :space

      # @param recipe [Recipe]
      # @param source [String] encoding id of the source's code values
      # @param compress [Boolean] bring scene colours beyond AP1 within it, before all steps
      # @raise [UnknownIdError]
      def initialize(recipe:, source:, space: Colour::WorkingSpace.default, compress: false)
        @recipe, @source, @space, @compress = recipe, source, space, compress
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
        entered, at = entry
        list = recipe.entries.select(&:acts?).flat_map do |entry|
          before, at = convert(at, space.encoding_of(entry.step.class.domain)), space.encoding_of(entry.step.class.domain)
          before + entry.operations(space)
        end
        entered + list + convert(at, space.log)
      end

      # What happens to the source before all steps, and the encoding it is in then.
      def entry
        scene = Colour.encoding(source).scene?
        if scene && !space.scene?
          [compressed + convert(@compress ? "acescg" : source, space.log, SCENE_TO_DISPLAY), space.log]
        elsif scene && @compress
          [compressed, "acescg"]
        else
          [[], source]
        end
      end

      def compressed = @compress ? [*convert(source, "acescg"), Colour::ACES::GamutCompression.new] : []

      def convert(from, to, rendering = nil) = Colour::Conversion.new(from:, to:, rendering:).operations
    end
  end
end
