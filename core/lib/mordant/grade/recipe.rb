# frozen_string_literal: true

module Mordant
  module Grade
    # A grade: steps from top to bottom in signal order. Immutable.
    #
    # As a document: {"steps": [{"id", "kind", "name", "enabled", "strength",
    # "parameters"}, ...]}, "keys" of a step that moves, see Keys, "matte" of one that acts on a
    # part of the picture, see Matte::Composite, "spans" of one that acts on parts of the shot: ids of
    # the recipe's "spans", see Span, and "bundle" of one that is kept together with its neighbours: the id of one of the recipe's
    # "bundles", see Bundle.
    class Recipe
      LARGEST = 64 # steps
      KEYS = %w[steps spans bundles].freeze

      # @return [Array<Entry>]
      attr_reader :entries
      # @return [Array<Span>] that its steps can name
      attr_reader :spans
      # @return [Array<Bundle>] that its steps can be kept in
      attr_reader :bundles

      EMPTY_DOCUMENT = {"steps" => []}.freeze

      # @return [Symbol] what steps it is made of, see Steps::Step.serves
      def self.serves = :pictures

      # @param text [String] JSON
      # @raise [ParameterError] also of text that is not JSON; NaN and Infinity are not
      def self.from_json(text)
        new(JSON.parse(text))
      rescue JSON::ParserError => e
        raise ParameterError.new(path: "recipe", expected: "JSON", found: e.message[0, 120])
      end

      # @param document [Hash]
      # @raise [ParameterError] naming the path of the first fault
      def initialize(document)
        steps = document.is_a?(Hash) ? document["steps"] : nil
        unless steps.is_a?(Array) && steps.size <= LARGEST
          raise ParameterError.new(path: "steps", expected: "a list of at most #{LARGEST} steps", found: steps || document)
        end
        @spans = Span.list(document.fetch("spans", []))
        @bundles = Bundle.list(document.fetch("bundles", []))
        named = {spans:, bundles:}.transform_values { |list| list.to_h { |one| [one.id, one] } }
        @entries = steps.each_with_index.map { |step, index| Entry.new(step, path: "steps[#{index}]", serves: self.class.serves, **named) }.freeze
        twice = @entries.map(&:id).tally.find { |_, count| count > 1 }
        raise ParameterError.new(path: "steps", expected: "ids used once", found: twice.first) if twice

        check_braids
        check_bundles
        Links.check(self)
        freeze
      end

      # @param groups [Array<Array<Entry>>] as of #strands, of any recipes
      # @return [Recipe] of those
      def self.of(groups)
        Joined.new(groups.map do |group|
          allocate.tap do |recipe|
            recipe.instance_variable_set(:@entries, group.dup.freeze)
            recipe.instance_variable_set(:@spans, [].freeze)
            recipe.instance_variable_set(:@bundles, [].freeze)
            recipe.freeze
          end
        end)
      end

      # @return [Array<Array<Entry>>] in signal order: single steps, and those side by side
      def strands = entries.chunk_while { |a, b| a.braid && a.braid == b.braid }.to_a

      # @param others [Array<Recipe>]
      # @return [Recipe] of its entries and then theirs, however many they are
      def followed_by(*others)
        (others.all? { |other| other.entries.empty? }) ? self : Joined.new([self, *others])
      end

      # @return [Boolean] it changes no picture
      def neutral? = entries.none?(&:acts?)

      # @param ids [Array<String>] of entries
      # @return [Recipe] of those alone, in their order
      # @raise [ParameterError] of an id that no step has
      def only(ids)
        unknown = ids - entries.map(&:id)
        raise ParameterError.new(path: "steps", expected: "ids of steps of the recipe", found: unknown.first) unless unknown.empty?

        picked(ids)
      end

      # @param id [String] of an entry
      # @return [Recipe] of the entries before it
      # @raise [ParameterError] of an id that no step has
      def before(id)
        index = entries.find_index { |entry| entry.id == id }
        raise ParameterError.new(path: "step", expected: "the id of a step of the recipe", found: id) unless index

        only(entries.first(index).map(&:id))
      end

      # @param id [String] of an entry
      # @return [Recipe] up to it, with it; all where it is not there
      def upto(id)
        index = entries.find_index { |entry| entry.id == id }
        index ? only(entries.first(index + 1).map(&:id)) : self
      end

      # @param circuit [Symbol] of steps, see Steps::Step.circuit
      # @return [Recipe] in which they are off
      def without(circuit) = with(entries.map { |entry| (entry.step.class.circuit == circuit) ? entry.weakened(0.0) : entry })

      # Whether it changes from frame to frame.
      def moving? = entries.any?(&:moving?)

      # @param frames [Range<Integer>, nil] of the shot, without its end; nil: all of it
      # @return [Integer] frames before and after that a picture depends on, wherever it is in those
      def window(frames = nil) = entries.sum { |entry| entry.window(frames) }

      # @param frame [Integer] from the shot's first one
      # @return [Recipe] as it is there
      def at(frame) = moving? ? standing(frame) : self

      # Where it stands still, and where it moves.
      #
      # @param frames [Range<Integer>] of the shot, without its end
      # @return [Array<Array(Range, Boolean)>] stretches in order, and whether each moves
      def stretches(frames)
        moves = entries.flat_map(&:moves).sort_by(&:begin).each_with_object([]) do |range, runs|
          (runs.any? && range.begin <= runs.last.end) ? runs.push(Range.new(*[*runs.pop.minmax, range.end].minmax)) : runs.push(range)
        end
        edges = moves.flat_map { |span| [span.begin + 1, span.end] }.select { |frame| frame > frames.begin && frame < frames.end }
        [frames.begin, *edges.uniq.sort, frames.end].each_cons(2).map { |from, to| [from...to, moves.any? { |span| from > span.begin && from < span.end }] }
          .chunk_while { |(_, before), (_, after)| before && after }.map { |run| [run.first[0].begin...run.last[0].end, run.first[1]] }
      end

      # @param frames [Integer]
      # @return [Recipe] of an owner that began so many frames before the shot: a wash
      def began(frames) = (moving? && !frames.zero?) ? with(entries.map { |entry| entry.began(frames) }) : self

      # @yieldparam frame [Integer] of the shot, from its first one
      # @yieldreturn [Array(Integer, Integer)] seed of the clip and the clip's frame there, for what differs from frame to frame by
      #   itself, such as grain; without one it goes by the owner's frames
      # @return [Recipe]
      def sown(&seeds) = moving? ? with(entries.map { |entry| entry.sown(seeds) }) : self

      # What mattes refer to beyond the recipe.
      #
      # @param resolver [#linked, #clip, #path] of a contributor Matte::Linked, Matte::Clip or the id of a path to a
      #   source, see Matte::Elsewhere, to a Track::Path, or to nil
      # @return [Recipe] whose mattes have it
      def resolved(resolver)
        made = entries.map { |entry| entry.resolved(resolver) }
        (made.each_index.all? { |index| made[index].equal?(entries[index]) }) ? self : with(made)
      end

      # @return [Array<Entry>] that change pictures and that no look-up table can hold
      def beyond_luts = entries.select { |entry| entry.acts? && (entry.moving? || !entry.pointwise?) }

      # @return [Recipe] without them
      def within_luts = beyond_luts.empty? ? self : only((entries - beyond_luts).map(&:id))

      # @param share [Float] 0.0..1.0
      # @return [Recipe] with so much of every step's strength
      def weakened(share) = (share == 1.0) ? self : with(entries.map { |entry| entry.weakened(share) })

      # What files the steps read and when they were last changed; pictures depend on it.
      #
      # @return [Array]
      def stamps = entries.flat_map(&:stamps)

      def to_h = {"steps" => entries.map(&:to_h), **{"spans" => spans, "bundles" => bundles}.reject { |_, list| list.empty? }.transform_values { |list| list.map(&:to_h) }}

      # What pictures depend on of it, the files its steps read, its owner's time, the spans and the bundles of its steps included.
      #
      # @return [Array] for JSON
      def stamp = [{"steps" => entries.map(&:to_h)}, stamps, *entries.filter_map { |entry| entry.bundle&.to_h }, *(entries.map { |entry| [entry.since, *entry.spans.map(&:to_h)] } if moving?)]

      # @param entries [Array<Entry>] in place of its own, checked already
      # @return [Recipe]
      def replaced(entries) = with(entries)

      protected

      def standing(frame) = with(entries.map { |entry| entry.at(frame) })

      def picked(ids) = with(entries.select { |entry| ids.include?(entry.id) })

      # Entries that have been checked already.
      def with(entries)
        dup.tap do |recipe|
          recipe.instance_variable_set(:@entries, entries.freeze)
          recipe.freeze
        end
      end

      private

      # Those of a bundle are neighbours, and all of what stands side by side is in it.
      def check_bundles
        bundled = entries.chunk_while { |a, b| a.bundle == b.bundle }.map(&:first).select(&:bundle)
        torn = bundled.find.with_index { |entry, at| bundled.first(at).any? { |other| other.bundle == entry.bundle } }
        torn ||= strands.find { |group| group.map(&:bundle).uniq.size > 1 }&.last
        return unless torn

        raise ParameterError.new(path: "steps[#{entries.index(torn)}].bundle", expected: "steps of a bundle next to each other, all that stand side by side with them", found: torn.name)
      end

      def check_braids
        odd = strands.find { |group| group.size > 1 && group.any? { |entry| !entry.step.pointwise? } } or return

        raise ParameterError.new(path: "steps[#{entries.index(odd.first)}].braid", expected: "steps side by side that act on each pixel by itself",
          found: odd.find { |entry| !entry.step.pointwise? }.name)
      end
    end
  end
end
