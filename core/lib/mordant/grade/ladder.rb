# frozen_string_literal: true

module Mordant
  module Grade
    # What a screen needs to draw a graded picture by itself while a hand moves: a start picture,
    # and rungs that are climbed from it. Each rung is one or more strands side by side,
    #
    #   c = c + sum of share * weight * (lattice(c) - c)
    #
    # A run of steps that act on each pixel by itself, everywhere, is one rung of one strand that
    # weighs 1; steps with mattes are a rung of their own. Between rungs stand log codes of the
    # working space; the last one leads to the codes of the screen. Of a step that is noise, the lattice is what one
    # standard deviation of it does, and the weight a tile of it; see Noise. Other steps that reach further are
    # none: they stand before the start (see Start), or there is no ladder.
    class Ladder
      NODES = 33 # on an edge of a lattice
      # Domains of lattices end on multiples of this, so that they stay while a hand moves a little.
      DOMAIN_STEP = 1.0 / 32
      # What is added to the lowest and the highest value of a small picture, as a share of the tone
      # axis: single pixels lie beyond its means.
      BEYOND = [-0.08, 0.16].freeze
      # Values between rungs are held to these tones: colours far out of gamut have log codes without
      # end, and a lattice that covered them would have no node left for the picture.
      TONES = -0.25..1.4

      # nodes: see Nodes; entry: whose matte weighs it, or nil; share: its strength; noise: see Noise, or nil.
      Strand = Struct.new(:nodes, :entry, :share, :noise, keyword_init: true)

      LEAST = 1e-4 # between the lowest and the highest value of a range

      # @param space [Colour::WorkingSpace]
      # @return [Array<Float>] lowest and highest log code between rungs
      def self.held(space) = [TONES.begin, TONES.end].map { |tone| space.black + tone * (space.white - space.black) }

      # @param values [Numo::SFloat] [3, n]
      # @return [Array(Numo::SFloat, Array<Array<Float>>)] as shares between the lowest and the highest of each
      #   channel, and those
      def self.shares(values)
        low, high = values.min(axis: 1).to_a, values.max(axis: 1).to_a
        range = [low, low.zip(high).map { |a, b| [b, a + LEAST].max }]
        [Numo::NArray.vstack(range.transpose.each_with_index.map { |(a, b), channel| (values[channel, true] - a) * (1.0 / (b - a)) }), range]
      end

      # @param groups [Array<Array<Entry>>] as of Recipe#strands
      # @return [Boolean] there is a ladder for them
      def self.holds?(groups) = groups.flatten.none? { |entry| entry.acts? && !entry.step.pointwise? && !noise?([entry]) }

      # @param group [Array<Entry>]
      # @return [Boolean] it is noise over all of the picture
      def self.noise?(group) = group.one? && group.first.step.noisy? && !group.first.masked?

      # @param group [Array<Entry>]
      # @return [Boolean] a lattice can stand for it alone
      def self.plain?(group) = group.none? { |entry| entry.acts? && !entry.pointwise? }

      # @param groups [Array<Array<Entry>>] as they are at a frame, in signal order
      # @param source [String] encoding id of the start picture
      # @param screen [#chain, #stamp] what it is drawn on, from log codes of the working space
      # @param domain [Array<Array<Float>>] lowest and highest red, green, blue of the start picture
      # @param smalls [Array<Media::Codes, Frame>] start pictures, reduced, of all frames that it is for,
      #   or of some: lattices need not hold more than comes of them
      # @param origins [Array<Origin>] of the start pictures, where they are not the source themselves
      # @param raster [#width, #height, nil] of the start picture; needed by noise
      # @param compress [Boolean] see Plan
      def initialize(groups:, source:, screen:, domain:, smalls:, origins: [], raster: nil, space: Colour::WorkingSpace.default, compress: false)
        @raster = raster
        @source, @screen, @space, @compress, @smalls, @origins = source, screen, space, compress, smalls, origins
        @held = Ladder.held(space)
        @domain = (source == space.log) ? hold(domain) : domain
        @runs = runs(groups.map { |group| group.select(&:acts?) }.reject(&:empty?))
        @plans = {}
      end

      # @return [Array<Array<Strand>>] in signal order
      def rungs = @rungs ||= @runs.each_index.map { |index| strands(index, index.zero? ? @domain : between(index)) }

      # Climbs all of it exactly.
      #
      # @param start [Media::Codes, Frame] as it starts from, at any raster
      # @param origin [Origin, nil] of it, nil where it is the source
      # @return [Climb]
      def climb(start, origin = nil)
        start = start.frame(encoding: @source) if start.is_a?(Media::Codes) && !plain?(@runs.first)
        origin ||= Origin.new(plan([], @source), Moment.of(start))
        weights = {}.compare_by_identity
        pictures = @runs.each_with_index.inject([start]) do |made, (run, index)|
          next [*made, made.last] if noise?(run)

          plan = plan(run, encoding(index))
          [*made, plain?(run) ? plan.picture(Moment.of(made.last)) : weighted(plan.sections.last, run.first, Moment.of(made.last).from(origin), made.last, weights)]
        end
        Climb.new(pictures:, weights:)
      end

      # @return [Array<Climb>] of the small pictures
      def climbs = @climbs ||= @smalls.zip(@origins).map { |small, origin| climb(small, origin) }

      # pictures: the start and what comes of each run, the last one graded, in log codes of the working space;
      # weights: Numo::SFloat [n] by the entry whose matte they are.
      Climb = Struct.new(:pictures, :weights, keyword_init: true) do
        # @return [Frame]
        def graded = pictures.last
      end

      private

      def weighted(section, entries, moment, picture, weights)
        made = section.weights(moment) { picture.rgb }
        entries.zip(made) { |entry, weight| weights[entry] = weight if weight }
        picture.with(section.call(moment, made) { picture.rgb })
      end

      # What the small pictures ask of a run, and somewhat more.
      def between(index)
        ends = climbs.map { |climb| climb.pictures[index].rgb.then { |rgb| [rgb.min(axis: 1).to_a, rgb.max(axis: 1).to_a] } }.transpose
        low, high = ends.zip(%i[min max], BEYOND).map { |all, most, more| all.transpose.map { |values| values.send(most) + more * (@space.white - @space.black) } }
        low, high = hold([low, high])
        low = low.map { |value| (value / DOMAIN_STEP).floor * DOMAIN_STEP }
        [low, high.zip(low).map { |value, least| [(value / DOMAIN_STEP).ceil * DOMAIN_STEP, least + DOMAIN_STEP].max }]
      end

      # Never empty, however far out of it a domain lies.
      def hold(domain)
        low, high = domain.map { |ends| ends.map { |value| value.clamp(*@held) } }
        [low, high.zip(low).map { |value, least| [value, least + LEAST].max }]
      end

      # Neighbours that a lattice can hold together are one run. The first and the last convert.
      def runs(groups)
        list = groups.slice_when { |a, b| !(Ladder.plain?(a) && Ladder.plain?(b)) }.to_a
        list.unshift([]) if list.empty? || !(plain?(list.first) || @source == @space.log)
        plain?(list.last) ? list : [*list, []]
      end

      def plain?(run) = run.empty? || Ladder.plain?(run.first)

      def noise?(run) = run.one? && Ladder.noise?(run.first)

      def strands(index, domain)
        run, from = @runs[index], encoding(index)
        return [strand(run, from, domain, onto: (@screen if index == @runs.size - 1))] if plain?(run)

        return [noise(run.first.first, domain)] if noise?(run)

        run.first.map { |entry| strand([[entry.alone]], from, domain, entry:) }
      end

      def strand(groups, from, domain, onto: nil, entry: nil)
        key = [ENGINE, @space.id, @compress && from == @source, from, Colour::Encoding.own.stamp(from), Recipe.of(groups).stamp, onto&.stamp, domain]
        nodes = Nodes.kept(key) { Nodes.of(plan(groups, from), domain, onto:, held: @held) }
        Strand.new(nodes:, entry: (entry if entry&.masked?), share: entry ? entry.share : 1.0)
      end

      def noise(entry, domain)
        key = [ENGINE, @space.id, entry.worked.values, @raster.width, domain]
        nodes = Nodes.kept(key) { Nodes.of(plan([], @space.log), domain, onto: nil, held: @held, through: Through.new(Pointwise::Chain.new(entry.worked.unit(@space, @raster)))) }
        Strand.new(nodes:, share: entry.share, noise: [Noise.of(entry.worked, @raster), entry.worked])
      end
      Through = Struct.new(:chain)
      private_constant :Through

      def encoding(index) = index.zero? ? @source : @space.log

      def plan(groups, from) = @plans[[groups, from]] ||= Plan.new(recipe: Recipe.of(groups), source: from, space: @space, compress: @compress && from == @source)
    end
  end
end
