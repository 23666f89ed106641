# frozen_string_literal: true

module Mordant
  module Grade
    module Section
      # Steps side by side whose changes are kept by mattes, in log codes of the working space:
      # out = in + sum of share * matte * (changed - in).
      class Weighted
        # sections: what a step makes of its input; matte: nil acts everywhere; share: its strength.
        Strand = Struct.new(:sections, :matte, :share, keyword_init: true) do
          # @yieldparam moment [Moment]
          # @yieldreturn [Numo::SFloat] the input
          def changed(moment, index = sections.size - 1, &input)
            return input.call(moment) if index.negative?

            sections[index].call(moment) { |other| changed(other, index - 1, &input) }
          end

          # @return [Boolean] it makes something of each pixel by itself
          def pointwise? = sections.all?(&:pointwise?)

          # @param rgb [Numo::SFloat] [3, n]
          # @return [Numo::SFloat] what it makes of pixels, where it is pointwise
          def pixels(rgb) = sections.reduce(rgb) { |made, section| section.chain.call(made) }

          # @return [Array<#call>] the same as operations on planes
          def steps = sections.flat_map { |section| section.chain.steps }

          # @return [Boolean] a kernel can do them
          def recordable? = pointwise? && steps.all? { |step| Pointwise::Recording.takes?(step) }

          def margin(raster) = sections.sum { |section| section.margin(raster) }

          def window = sections.sum(&:window)
        end

        # @param strands [Array<Strand>]
        # @param space [Colour::WorkingSpace]
        def initialize(strands, space)
          @strands, @space, @sweeps = strands, space, {}
          freeze
        end

        # @yieldparam moment [Moment]
        # @yieldreturn [Numo::SFloat] [3, n] what comes before
        # @return [Array<Numo::SFloat, nil>] [n] of each strand; nil of one that acts everywhere
        def weights(moment, &before)
          sight = Matte::Sight.new(moment, @space, &before)
          @strands.map { |strand| strand.matte&.weights(sight) }.tap { sight.free }
        end

        # @param weights [Array, nil] as #weights, where they are known
        def call(moment, weights = nil, &before)
          more = weights ? moment : moment.grown(reach(moment))
          all = before.call(more)
          input = moment.window.cut(all, more.window)
          weights ||= weights(moment) { |other| other.window.cut(all, more.window) }
          wholes = @strands.map { |strand| whole(strand, input, moment, &before) }
          mixed(input, wholes, weights).tap { wholes.each { |whole| whole&.free } }
        end

        def margin(raster) = [*@strands.map { |strand| strand.margin(raster) }, reach(raster)].max

        def window = @strands.map(&:window).max

        def pointwise? = false

        private

        # @return [Integer] pixels around one that mattes depend on
        def reach(raster) = @strands.filter_map { |strand| strand.matte&.margin(raster) }.max || 0

        # @return [Numo::SFloat, nil] what a strand makes of it; nil of one that each pixel does for
        def whole(strand, input, moment, &before)
          # a view, which can be used up and leaves the input
          strand.changed(moment) { |other| (other == moment) ? input.view : before.call(other) } unless strand.pointwise?
        end

        # What a kernel can do of the strands is done in the same go; tile by tile, where there is more.
        #
        # @param wholes [Array<Numo::SFloat, nil>] see #whole
        # @param weights [Array<Numo::SFloat, nil>]
        def mixed(input, wholes, weights)
          given = @strands.zip(wholes).map { |strand, whole| !whole.nil? || !strand.recordable? }
          sweep = @sweeps[[given, weights.map(&:nil?)]] ||= sweep(given, weights.map { |weight| !weight.nil? })
          out = Numo::SFloat.new(*input.shape).allocate
          tiles(wholes, input.shape[1]).each do |range|
            changed = @strands.zip(wholes, given).select(&:last).flat_map { |strand, whole| whole ? Pointwise.rows(whole, range) : Pointwise.rows(strand.pixels(Pointwise.part(input, range))) }
            sweep.call(*Pointwise.rows(input, range), *changed, *weights.compact.map { |weight| weight[range] }, into: Pointwise.rows(out, range))
          end
          out
        end

        # All at once, where a sweep does all that is left to do.
        def tiles(wholes, count) = (@strands.zip(wholes).all? { |strand, whole| whole || strand.recordable? }) ? [0...count] : Pointwise.each_tile(count, Pointwise::SHORT)

        # @param given [Array<Boolean>] of each strand, whether what it makes is there already
        # @param masked [Array<Boolean>] of each strand, whether it has weights
        # @return [Pointwise::Sweep] of three planes before, three of each strand that are given, and the weights there are
        def sweep(given, masked)
          Pointwise::Sweep.new(3 + 3 * given.count(true) + masked.count(true)) do |*planes|
            base = planes.shift(3)
            changed = @strands.zip(given).map { |strand, there| there ? planes.shift(3) : Pointwise::Chain.reduce(strand.steps, base.map(&:dup)) }
            @strands.zip(changed, masked.map { |one| planes.shift if one }).reduce(base) { |sum, (strand, own, weight)| added(sum, base, own, strand.share, weight) }
          end
        end

        def added(so_far, base, changed, share, weight)
          so_far.zip(base, changed).map do |sum, plane, made|
            more = made - plane
            more *= share unless share == 1.0
            sum + (weight ? more * weight : more)
          end
        end
      end
    end
  end
end
