# frozen_string_literal: true

module Mordant
  module Grade
    # A recipe compiled for a source: from its code values to log codes of the
    # working space. An Output goes on from there.
    #
    # Neutral and switched-off steps vanish, neighbouring pointwise operations fuse
    # (see Pointwise::Chain). A step that depends on where a pixel is, or on others, is
    # a barrier between chains: a Stage.
    class Plan
      # A scene brought into a display-referred space is rendered with this.
      SCENE_TO_DISPLAY = "sdr-video-1.0"

      attr_reader :recipe, :source, :space

      # @param recipe [Recipe]
      # @param source [String] encoding id of the source's code values
      # @param compress [Boolean] bring scene colours beyond AP1 within it, before all steps
      # @raise [UnknownIdError, MediaError, FormatError]
      def initialize(recipe:, source:, space: Colour::WorkingSpace.default, compress: false)
        @recipe, @source, @space, @compress = recipe, source, space, compress
        @head, tail = operations
        @parts = join(@head + tail)
        @tail = tail
      end

      # @return [Boolean] a look-up table can stand for it
      def pointwise? = @parts.one?

      # @return [Pointwise::Chain] from the source's code values to the working space
      # @raise [ParameterError] of a plan that is not pointwise
      def chain = only_chain(@parts)

      # What does not depend on the values of any parameter, up to the first step.
      #
      # @return [Pointwise::Chain]
      def head = Pointwise::Chain.new(@head)

      # @return [Object] plans with equal ones have equal heads
      def head_key = [Colour.encoding(source), @compress, space.id, strands.first && domain_of(strands.first)]

      # @return [Pointwise::Chain] what follows the head
      # @raise [ParameterError] of a plan that is not pointwise
      def tail = only_chain(join(@tail))

      # @param codes [Media::Codes]
      # @return [Frame] graded, in log codes of the working space
      def run(codes)
        rgb = @parts.first.from_codes(codes.rgb)
        codes.to_frame(finish(rgb, codes.width, codes.height), encoding: space.log)
      end

      # @param frame [Frame] in the source encoding
      # @return [Frame] graded, in log codes of the working space
      # @raise [ParameterError] of a frame in another encoding
      def apply(frame)
        unless frame.encoding == source
          raise ParameterError.new(path: "frame.encoding", expected: source, found: frame.encoding)
        end
        frame.with(finish(@parts.first.call(frame.rgb), frame.width, frame.height), encoding: space.log)
      end

      private

      def finish(rgb, width, height)
        @parts.drop(1).reduce(rgb) do |held, part|
          part.is_a?(Stage) ? part.call(held, width, height) : part.call(held)
        end
      end

      # Chains with stages between them; the first part is a chain.
      def join(list)
        runs = list.slice_when { |a, b| a.is_a?(Stage) || b.is_a?(Stage) }.map { |run| run.first.is_a?(Stage) ? run.first : Pointwise::Chain.new(run) }
        runs.first.is_a?(Pointwise::Chain) ? runs : [Pointwise::Chain.new([]), *runs]
      end

      def only_chain(parts)
        return parts.first if parts.one?

        raise ParameterError.new(path: "recipe", expected: "steps a look-up table can hold", found: recipe.beyond_luts.map(&:name).join(", "))
      end

      # @return [Array<Array<Entry>>] what acts, steps side by side together
      def strands = recipe.strands.map { |group| group.select(&:acts?) }.reject(&:empty?)

      # @return [Symbol] steps side by side meet in log codes
      def domain_of(group) = group.one? ? group.first.step.class.domain : :log

      # @return [Array<Array>] up to the first step, and from there on
      def operations
        entered, at = entry
        parts = strands.map do |group|
          domain = space.encoding_of(domain_of(group))
          before, at = convert(at, domain), domain
          [before, group.one? ? group.first.operations(space) : [braided(group)]]
        end
        leaving = convert(at, space.log)
        return [entered + leaving, []] if parts.empty?

        [entered + parts.first.first, [*parts.first.last, *parts.drop(1).flatten, *leaving]]
      end

      def braided(group)
        Pointwise::Braid.new(group.map do |entry|
          own = space.encoding_of(entry.step.class.domain)
          Pointwise::Chain.new([*convert(space.log, own), *entry.operations(space), *convert(own, space.log)])
        end)
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
