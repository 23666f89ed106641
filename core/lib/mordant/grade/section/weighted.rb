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

          def margin(raster) = sections.sum { |section| section.margin(raster) }

          def window = sections.sum(&:window)
        end

        # @param strands [Array<Strand>]
        # @param space [Colour::WorkingSpace]
        def initialize(strands, space)
          @strands, @space = strands, space
          freeze
        end

        # @yieldparam moment [Moment]
        # @yieldreturn [Numo::SFloat] [3, n] what comes before
        # @return [Array<Numo::SFloat, nil>] [n] of each strand; nil of one that acts everywhere
        def weights(moment, &before)
          sight = Matte::Sight.new(moment, @space, &before)
          @strands.map { |strand| strand.matte&.weights(sight) }
        end

        # @param weights [Array, nil] as #weights, where they are known
        def call(moment, weights = nil, &before)
          more = weights ? moment : moment.grown(reach(moment))
          all = before.call(more)
          input = moment.window.cut(all, more.window)
          weights ||= weights(moment) { |other| other.window.cut(all, more.window) }
          strands = @strands.zip(weights).map { |strand, weight| [strand, weight, whole(strand, input, moment, &before)] }
          out = Numo::SFloat.new(*input.shape).allocate
          Pointwise.each_tile(input.shape[1]) do |range|
            part = input[true, range].dup
            out[true, range] = strands.reduce(part.dup) { |sum, (strand, weight, changed)| added(sum, part, changed ? changed[true, range].dup : strand.pixels(part), strand.share, weight && weight[range]) }
          end
          out
        end

        def margin(raster) = [*@strands.map { |strand| strand.margin(raster) }, reach(raster)].max

        def window = @strands.map(&:window).max

        def pointwise? = false

        private

        # @return [Integer] pixels around one that mattes depend on
        def reach(raster) = @strands.filter_map { |strand| strand.matte&.margin(raster) }.max || 0

        # @return [Numo::SFloat, nil] what a strand makes of it; nil of one that each pixel does for
        def whole(strand, input, moment, &before)
          strand.changed(moment) { |other| ((other == moment) ? input : before.call(other)).dup } unless strand.pointwise?
        end

        # @param changed [Numo::SFloat] used up
        def added(sum, part, changed, share, weight)
          changed.inplace - part
          changed.inplace * share unless share == 1.0
          changed.inplace * weight if weight
          (sum.inplace + changed.out_of_place!).out_of_place!
        end
      end
    end
  end
end
