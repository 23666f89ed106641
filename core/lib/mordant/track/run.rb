# frozen_string_literal: true

module Mordant
  module Track
    # Follows the shape of a step through frames of a shot.
    class Run
      # @param recipe [Grade::Recipe] of the shot
      # @param step [String] id of the step
      # @param contributor [String, nil] id of the shape that is followed; nil: the first of the step's matte
      # @param kind [String] see Template::KINDS
      # @param plan [#call] of a recipe to a Grade::Plan for the shot's source
      # @raise [ParameterError]
      def initialize(recipe, step:, kind:, contributor: nil, &plan)
        @recipe, @step, @kind, @plan = Grade::Links.within(recipe), step, kind, plan
        @entry = recipe.entries.find { |entry| entry.id == step } or refuse("step", "the id of a step of the recipe", step)
        shapes = (@entry.matte&.parts || []).select { |part| part.contributor.class.family == :shape }
        refuse("step", "a step whose matte has a shape to follow", @entry.name) if shapes.empty?
        @contributor = contributor || shapes.first.id
        refuse("contributor", "a shape of the step's matte", contributor) unless shapes.any? { |part| part.id == @contributor }
        refuse("with", Template::KINDS.keys.join(", "), kind) unless Template::KINDS.key?(kind)
      end

      # @param frames [Enumerable] of pairs of a frame and a Grade::Moment of the source there, in the order that it is
      #   followed in, next to each other
      # @yieldparam frame [Integer] that is found
      # @yieldreturn [Boolean] go on
      # @return [Path]
      # @raise [ParameterError, MediaError]
      def path(frames)
        follow, found, lost, centre = nil, {}, nil, nil
        frames.each do |frame, moment|
          plane = lightness(frame, moment)
          if follow
            one = follow.next(plane)
            lost = {"frame" => frame, "why" => follow.why} unless one
          else
            follow, centre = begun(frame, moment, plane)
            one = Follow::Found.new(map: Map::NONE, confidence: 1.0)
          end
          break unless one

          found[frame] = one
          break if block_given? && !yield(frame)
        end
        made(found, centre, lost)
      end

      private

      def begun(frame, moment, plane)
        entry = @recipe.at(frame).entries.find { |one| one.id == @step }
        shape = entry.matte.part(@contributor)
        height, width = plane.shape
        small = Grade::Moment.new(width:, height:)
        mask = shape.weights(Matte::Sight.new(small, source.space) { nil }).reshape(height, width)
        part = shape.parts.first
        inverted = part.invert?
        mask = mask * -1.0 + 1.0 if inverted
        [Follow.new(plane, mask, kind: @kind), middle(mask)]
      end

      # The middle of the shape in the picture, in heights from the picture's.
      def middle(mask)
        height, width = mask.shape
        sum = mask.sum
        [(mask * Numo::SFloat.new(1, width).seq).sum / sum + 0.5 - width / 2.0, (mask * Numo::SFloat.new(height, 1).seq).sum / sum + 0.5 - height / 2.0].map { |place| place.to_f / height }
      end

      # Codes as they are where they are no light, else what the step sees on the tone axis, at a raster about Follow::WIDTH.
      def lightness(frame, moment)
        rgb, space = Colour.encoding(source.source).linear? ? [seen(frame, moment), source.space] : [moment.entered(Pointwise::Chain.new([])), nil]
        planes = Pointwise.rows(rgb)
        tone = space ? Matte::Axes.new(planes, space).lightness : planes.zip(WEIGHTS).map { |plane, weight| plane * weight }.reduce(:+)
        tone = tone.reshape(moment.window.height, moment.window.width)
        tone[tone.isnan] = 0.0 if tone.sum.nan?
        by = moment.window.width / Follow::WIDTH
        (by < 2) ? tone : Pyramid.reduced(tone, by)
      end
      WEIGHTS = [0.27, 0.67, 0.06].freeze # of red, green and blue codes

      def seen(frame, moment) = @plan.call(@recipe.at(frame).before(@step)).picture(moment).rgb

      # @return [Grade::Plan]
      def source = @source ||= @plan.call(@recipe.before(@recipe.entries.first.id))

      def made(found, centre, lost)
        frames = found.keys.sort
        Path.new({"kind" => @kind, "first" => frames.first, "centre" => centre, "maps" => frames.map { |frame| found[frame].map.numbers.first(8) },
          "confidence" => frames.map { |frame| found[frame].confidence }, "lost" => lost})
      end

      def refuse(path, expected, found) = raise(ParameterError.new(path:, expected:, found:))
    end
  end
end
