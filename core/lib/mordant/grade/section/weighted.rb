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

          def margin(raster) = sections.sum { |section| section.margin(raster) }

          def window = sections.sum(&:window)
        end

        # @param strands [Array<Strand>]
        # @param space [Colour::WorkingSpace]
        def initialize(strands, space)
          @strands, @space = strands, space
          freeze
        end

        # @param input [Numo::SFloat] [3, n] at the moment
        # @return [Array<Numo::SFloat, nil>] [n] of each strand; nil of one that acts everywhere
        def weights(input, moment) = @strands.map { |strand| strand.matte&.weights(input, moment, @space) }

        # @param weights [Array, nil] as #weights, where they are known
        def call(moment, weights = nil, &before)
          input = before.call(moment)
          weights ||= weights(input, moment)
          @strands.zip(weights).reduce(input.dup) do |sum, (strand, weight)|
            changed = strand.changed(moment) { |other| (other == moment) ? input : before.call(other) }
            change = changed - input
            change.inplace * strand.share
            3.times { |channel| change[channel, true] = change[channel, true] * weight } if weight
            (sum.inplace + change.out_of_place!).out_of_place!
          end
        end

        def margin(raster) = @strands.map { |strand| strand.margin(raster) }.max

        def window = @strands.map(&:window).max

        def pointwise? = false
      end
    end
  end
end
