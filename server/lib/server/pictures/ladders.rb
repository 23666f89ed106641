# frozen_string_literal: true

module Server
  module Pictures
    # What a screen needs to draw a frame by itself while a hand moves: see Mordant::Grade::Ladder.
    #
    # While the hand rests, the start picture and exact weights are sent; with each move what has
    # changed: lattices, and weights from a small picture. A screen names what it holds by digests.
    class Ladders
      MOST_HELD = 256 # digests that a screen names

      # header: what a screen is told; parts: what it does not hold yet, by digests; graded: the small picture; acting: what
      # the matte of the step under the hand takes of that, nil without one.
      Answer = Struct.new(:header, :parts, :graded, :acting, keyword_init: true)

      # @param desk [Desk]
      # @param wish [Wish]
      # @param document [Hash] "step", the id of the one under the hand, or nil; "held", digests; of a move also
      #   "start" and "domain" as they were told
      # @raise [Mordant::ParameterError]
      def initialize(desk, wish, document)
        refuse("ladder", "an object", document) unless document.is_a?(Hash)
        @desk, @wish = desk, wish
        @step, @held, @told, @domain = document.values_at("step", "held", "start", "domain")
        @held ||= []
        refuse("ladder.held", "at most #{MOST_HELD} digests", @held) unless @held.is_a?(Array) && @held.size <= MOST_HELD
      end

      # At rest: the start, unless the screen holds it, and all with exact weights.
      #
      # @return [Answer, nil] nil where there is no ladder
      def prepared
        return unless start
        return answer(checked(@domain)) { |ladder, entry| exact(ladder, entry) } if digest == @told

        sent = Mordant::Grade::Ladder::Sent.of(whole, space)
        answer(sent.domain) { |ladder, entry| exact(ladder, entry) }.tap do |made|
          made.header.update(width: whole.width, height: whole.height, range: sent.range, domain: sent.domain)
          made.parts["start"] = sent.words
        end
      end

      # While the hand moves.
      #
      # @return [Answer, nil] nil where there is no ladder, or it starts otherwise than the screen's
      def moved
        return unless start && digest == @told

        answer(checked(@domain)) do |ladder, entry|
          next exact(ladder, entry) if @held.include?(exact_key(entry))

          climb = ladder.climbs.first
          weigh(digest_of(exact_key(entry), "small"), climb.graded.width, climb.graded.height) { climb.weights.fetch(entry) }
        end
      end

      # @param entry [Mordant::Grade::Entry] whose matte sees no picture
      # @return [Numo::SFloat] its weights at a raster
      def self.placed(entry, width, height, space) = entry.matte.weights(Mordant::Matte::Sight.new(Mordant::Grade::Moment.new(width:, height:), space) { nil })

      # @param ladder [Mordant::Grade::Ladder]
      # @param held [Array<String>] digests
      # @param parts [Hash] what is not held is added
      # @yieldparam entry [Mordant::Grade::Entry] that has a matte
      # @yieldreturn [Hash] name, width and height of its weights
      # @return [Array<Array<Hash>>] its rungs as a screen is told
      def self.rungs(ladder, held, parts)
        ladder.rungs.map do |rung|
          rung.map do |strand|
            nodes = strand.nodes
            parts[nodes.digest] = nodes.words unless held.include?(nodes.digest)
            {lattice: nodes.digest, domain: nodes.domain, range: nodes.range, share: strand.share, weight: strand.entry && yield(strand.entry), **noise(strand, held, parts)}
          end
        end
      end

      def self.noise(strand, held, parts)
        tile, step = strand.noise
        return {} unless tile

        parts[tile.digest] = tile.words unless held.include?(tile.digest)
        {noise: tile.to_h_at(step)}
      end
      private_class_method :noise

      private

      def project = @wish.project

      def space = project.space

      # @return [Mordant::Grade::Ladder::Start, nil]
      def start
        return @start if defined?(@start)

        @feed = @desk.alone(@wish) if @wish.screen.drawable?
        @start = @feed && Mordant::Grade::Ladder::Start.of(recipe, under_hand, source: @feed.encoding, space:)
      end

      # Without a step it is a rendition's correction.
      def under_hand = @step || (@wish.screen.view.aim && Mordant::Grade::Ladder::Start::AFTER_ALL)

      # @return [Mordant::Grade::Recipe] without what may be left out while a hand moves
      def recipe
        all = @wish.recipe_of(@feed.shot)
        kept = all.entries.reject { |entry| entry.step.fleeting? && entry.id != @step }
        (kept.size == all.entries.size) ? all : all.only(kept.map(&:id))
      end

      # @return [String] of the start picture
      def digest = @digest ||= digest_of(@feed.stamp, start.before && Depends.grade(project, start.before, @feed.encoding))

      def digest_of(*parts) = Depends.digest(*parts)[0, 16]

      # Of the weights at the raster of the start picture.
      def exact_key(entry)
        seen = [digest, Mordant::Grade::Recipe.of(start.after.take_while { |group| !group.include?(entry) }).stamp] if entry.matte.sees_picture?
        digest_of(Mordant::ENGINE, entry.matte.to_h, entry.matte.stamps, Desk.raster(project), seen, project.working_space)
      end

      def answer(domain)
        small = start.before ? @desk.small(project, @feed, start.before) : @feed.codes(Desk::SMALL_REDUCTION)
        ladder = Mordant::Grade::Ladder.new(groups: start.after, source: start.before ? space.log : @feed.encoding, screen: @wish.screen, domain:,
          smalls: [small], origins: [start.before && @desk.origin(project, @feed, Desk::SMALL_REDUCTION)], raster:, space:, compress: start.before.nil? && project.compress_gamut)
        @parts = {}
        rungs = Ladders.rungs(ladder, @held, @parts) { |entry| yield ladder, entry }
        Answer.new(header: {start: digest, nodes: Mordant::Grade::Ladder::NODES, rungs:}, parts: @parts, graded: ladder.climbs.first.graded, acting: acting(ladder.climbs.first))
      end

      def raster = Mordant::Grade::Window.whole(*Desk.raster(project))

      def acting(climb)
        entry, weights = climb.weights.find { |one, _| one.id == @step }
        weights && {step: entry.id, **Mordant::Grade::MatteLook.told(weights)}
      end

      # @return [Mordant::Media::Codes, Mordant::Frame] the start picture
      def whole = @whole ||= start.before ? @desk.graded(@wish, @feed, start.before, 1) : @feed.codes

      def exact(ladder, entry)
        weigh(exact_key(entry), *Desk.raster(project)) do
          if entry.matte.sees_picture?
            (@climb ||= ladder.climb(whole, start.before && @desk.origin(project, @feed, 1))).weights.fetch(entry)
          else
            Ladders.placed(entry, *Desk.raster(project), space)
          end
        end
      end

      # @yieldreturn [Numo::SFloat] of a raster
      # @return [Hash] what a screen is told of them
      def weigh(name, width, height)
        @parts[name] ||= Mordant::Grade::Ladder::Sent.weights(yield) unless @held.include?(name)
        {name:, width:, height:}
      end

      def checked(domain)
        fine = domain.is_a?(Array) && domain.size == 2 && domain.all? { |ends| ends.is_a?(Array) && ends.size == 3 && ends.all? { |value| value.is_a?(Numeric) && value.real? && value.to_f.finite? } }
        (fine && domain.transpose.all? { |low, high| low < high }) ? domain : refuse("ladder.domain", "lowest and highest red, green, blue", domain)
      end

      def refuse(path, expected, found) = raise(Mordant::ParameterError.new(path:, expected:, found:))
    end
  end
end
