# frozen_string_literal: true

module Mordant
  module Steps
    class Dyes
      # Light through dyes: an operation of Pointwise chains, on linear light. Where it is tabulated, so are the functions of what a colour's
      # channels have to each other: of depth to 2e-7, of saturation, whose power is the fourth one of a table's, below 1e-5 of the value.
      class Passage
        ROOTS = 4

        # @param weights [Array<Float>] of the channels, for luminance
        # @param toned [Pointwise::FloatTable, nil] of luminance: how much of a pixel's own colour goes
        # @param saturation [Float]
        # @param depth [#call, nil] of the least channel as a share of the greatest: what light is multiplied by
        # @param gains [Array<Pointwise::FloatTable>, nil] of luminance: what each channel is multiplied by
        def initialize(weights, toned:, saturation:, depth:, gains:)
          @weights, @toned, @saturation, @depth, @gains = weights, toned, saturation, depth, gains
          @root = Pointwise::FloatTable.new(->(share) { Colour::Piecewise.power(share, saturation / ROOTS) }) unless saturation == 1.0
          @deep = Pointwise::UniformTable.new(depth) if depth
          freeze
        end

        def merge(_following) = nil

        # @return [Pointwise::Formula]
        def tabulate
          Pointwise::Formula.new(recordable: true) do |planes|
            passed(planes, @deep) { |share| @root.call(share).then { |root| root * root }.then { |square| square * square } }
          end
        end

        # @param planes [Array<Numo::NArray>]; not written to
        # @return [Array<Numo::NArray>] new ones
        def call(planes) = passed(planes, @depth) { |share| Colour::Piecewise.power(share, @saturation) }

        private

        # @yieldparam share [Numo::NArray, Pointwise::Recorded] of a channel, of the greatest
        # @yieldreturn [Numo::NArray, Pointwise::Recorded] its power
        def passed(planes, depth, &power)
          planes = toned(planes)
          planes = denser(planes, &power) unless @saturation == 1.0
          planes = deepened(planes, depth) if depth
          return planes unless @gains

          light = luminance(planes)
          planes.zip(@gains).map { |plane, gain| plane * gain.over(light) }
        end

        def toned(planes)
          return planes.map(&:dup) unless @toned

          light = luminance(planes)
          share = @toned.over(light) * -1.0 + 1.0
          planes.map { |plane| (plane - light) * share + light }
        end

        def denser(planes)
          most = greatest(planes)
          planes.map { |plane| yield((plane / most).clip(0.0, nil)) * most }
        end

        def deepened(planes, depth)
          least = planes.reduce { |low, plane| low.clip(nil, plane) }
          gain = depth.call((least / greatest(planes)).clip(0.0, 1.0))
          planes.map { |plane| plane * gain }
        end

        def greatest(planes) = planes.reduce { |high, plane| high.clip(plane, nil) }.clip(FLOOR, nil)

        def luminance(planes) = planes.zip(@weights).map { |plane, weight| plane * weight }.reduce(:+)
      end
    end
  end
end
