# frozen_string_literal: true

module Mordant
  module Matte
    # Contributors in order, as one matte, and what refines it, in order. Immutable.
    #
    # add takes the greater of both, subtract the lesser of what there is and of the rest,
    # intersect the lesser of both; what is out is as if it were not there. What comes first
    # is added to nothing, or taken from everything. Of a contributor at a strength s, w becomes
    # s w, and 1 - s (1 - w) where it intersects. A matte of no contributors acts everywhere,
    # whatever refines it, and gives nothing to mattes that are linked to it.
    class Composite
      include Altered

      KEYS = %w[contributors refinements strength].freeze
      MOST = 64 # contributors
      MOST_REFINEMENTS = 16

      # @return [Array<Part>]
      attr_reader :parts
      # @return [Array<Refined>] see there
      attr_reader :refinements
      # @return [Float] 0.0..1.0
      attr_reader :strength

      # A refinement in its place.
      Refined = Struct.new(:id, :enabled, :refinement, keyword_init: true) do
        def acts? = enabled && !refinement.neutral?

        def to_h = {"id" => id, "kind" => refinement.class.id, "enabled" => enabled, "parameters" => refinement.values.transform_keys(&:to_s)}
      end

      # @param document [Hash] as parsed from JSON
      # @param path [String] for errors
      # @raise [ParameterError]
      def initialize(document, path: "matte")
        Checks.held(path, document, KEYS)
        contributors = Checks.list(document.fetch("contributors", []), "#{path}.contributors", MOST, "contributors")
        @parts = contributors.each_with_index.map { |part, index| Part.new(part, path: "#{path}.contributors[#{index}]") }.freeze
        refinements = Checks.list(document.fetch("refinements", []), "#{path}.refinements", MOST_REFINEMENTS, "refinements")
        @refinements = refinements.each_with_index.map { |one, index| refined(one, "#{path}.refinements[#{index}]") }.freeze
        {contributors: parts, refinements: @refinements}.each do |name, list|
          twice = list.map(&:id).tally.find { |_, count| count > 1 }
          Checks.reject("#{path}.#{name}", "ids used once", twice.first) if twice
        end
        @strength = Checks.number(document.fetch("strength", 1.0), "#{path}.strength", 0.0..1.0)
        freeze
      end

      # @return [Boolean] it acts everywhere, in full
      def everywhere? = acting.empty? && strength == 1.0

      # @return [Boolean] it depends on the picture, not on the place alone
      def sees_picture? = acting.any? { |part| part.contributor.class.sees_picture? } || refining.any? { |one| one.class.sees_picture? }

      # @return [Boolean] it depends on what the steps before its own make
      def sees_step? = acting.any? { |part| part.contributor.sees_step? } || refining.any?(&:sees_step?)

      # @return [Array<Contributor>] that take part
      def contributors = acting.map(&:contributor)

      # Whether it changes from frame to frame.
      def moving? = parts.any?(&:moving?)

      # @return [Array<Range<Integer>>] see Part#moves
      def moves = parts.flat_map(&:moves)

      # @see Part#at
      def at(frame, shot_frame) = moving? ? with(parts.map { |part| part.at(frame, shot_frame) }) : self

      # @see Part#resolved
      def resolved(resolver)
        made = parts.map { |part| part.resolved(resolver) }
        (made.each_index.all? { |index| made[index].equal?(parts[index]) }) ? self : with(made)
      end

      # @see Grade::Entry#shifted
      def shifted(id, map) = with(parts.map { |part| (part.id == id) ? part.shifted(map) : part })

      # @param id [String] of a contributor
      # @param upto [Boolean] with those before it, and else alone and as if it were added
      # @return [Composite] without refinements and at full strength
      # @raise [ParameterError]
      def part(id, upto: false)
        index = parts.find_index { |part| part.id == id } or raise ParameterError.new(path: "contributor", expected: "one of the matte's", found: id)

        some = upto ? parts.first(index + 1) : [parts[index].added]
        copy { @parts, @refinements, @strength = some.freeze, [].freeze, 1.0 }
      end

      # @return [Composite] without refinements
      def unrefined = refinements.empty? ? self : copy { @refinements = [].freeze }

      # @param raster [#height]
      # @return [Integer] pixels around one that it depends on
      def margin(raster) = (acting.map { |part| part.margin(raster) }.max || 0) + (acting.empty? ? 0 : refining.sum { |one| one.margin(raster) })

      # @param sight [Sight]
      # @return [Numo::SFloat] [n] of its window, 0..1
      # @raise [ParameterError, MediaError] of what a contributor refers to and is not there
      def weights(sight)
        return Numo::SFloat.new(sight.moment.window.size).fill(strength) if acting.empty?

        more = sight.grown(margin(sight.moment))
        made = acting.reduce(nil) { |matte, part| combined(matte, part, more) }
        made = refining.reduce(made) { |matte, one| one.call(matte, more).tap { matte.free } }
        more.free unless more.equal?(sight)
        made = Pointwise.shaped(sight.moment.window.cut(Pointwise.shaped(made, 1, made.size), more.moment.window), sight.moment.window.size)
        (strength == 1.0) ? made : made * strength
      end

      # @return [Array] for JSON, what it depends on besides its document
      def stamps = parts.flat_map(&:stamps)

      def to_h = {"contributors" => parts.map(&:to_h), **(refinements.empty? ? {} : {"refinements" => refinements.map(&:to_h)}), "strength" => strength}

      private

      def acting = parts.select(&:acts?)

      def refining = refinements.select(&:acts?).map(&:refinement)

      # @param matte [Numo::SFloat, nil] of those before it; used up
      def combined(matte, part, sight)
        some = counted(part.weights(sight), part)
        return (part.mode == "subtract") ? (some.inplace * -1.0 + 1.0).out_of_place! : some unless matte

        JOINED.fetch(part.mode).call(matte, some).first.tap { [matte, some].each(&:free) }
      end

      JOINED = {
        "add" => ->(matte, some) { Pointwise.choose(some > matte, some, matte) },
        "subtract" => ->(matte, some) { (some * -1.0 + 1.0).then { |rest| Pointwise.choose(rest < matte, rest, matte) } },
        "intersect" => ->(matte, some) { Pointwise.choose(some < matte, some, matte) }
      }.transform_values { |formula| Pointwise::Sweep.new(2) { |*planes| [formula.call(*planes)] } }.freeze
      private_constant :JOINED

      # @param weights [Numo::SFloat] used up
      # @return [Numo::SFloat] as much of them as counts
      def counted(weights, part)
        return weights if part.strength == 1.0

        weights = weights.inplace * part.strength
        ((part.mode == "intersect") ? weights + (1.0 - part.strength) : weights).out_of_place!
      end

      def with(parts) = copy { @parts = parts.freeze }

      def refined(document, path)
        Checks.held(path, document, %w[id kind enabled parameters])
        parameters = document.fetch("parameters", {})
        Checks.reject("#{path}.parameters", "an object", parameters) unless parameters.is_a?(Hash)
        Refined.new(id: Checks.text(document["id"], "#{path}.id"), enabled: Checks.switch(document.fetch("enabled", true), "#{path}.enabled"),
          refinement: Checks.kind(Matte.refinements, document["kind"], path).new(parameters, path: "#{path}.parameters")).freeze
      end
    end
  end
end
