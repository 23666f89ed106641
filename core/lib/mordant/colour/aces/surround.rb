# frozen_string_literal: true

module Mordant
  module Colour
    module ACES
      # From a dark surround to a dim one: AP1 luminance to a power, chromaticity kept.
      #
      # Source: ACESlib.ODT_Common.ctl, darkSurround_to_dimSurround.
      class Surround
        EXPONENT = 0.9811
        TINY = 1e-10

        # What light is multiplied by, from its luminance, on the way there and back.
        SCALE, INVERSE = [EXPONENT, 1.0 / EXPONENT].map do |exponent|
          ->(luminance) { Numo::NMath.exp(Numo::NMath.log(luminance.clip(TINY, nil)) * (exponent - 1.0)) }
        end

        # @param scale [#call]
        def initialize(scale = SCALE)
          @scale = scale
        end

        def merge(_following) = nil

        def tabulate
          @tabulate ||= Surround.new(Pointwise::FloatTable.new(@scale))
        end

        # @return [Surround] see Pointwise::MadeWhenRead#quick
        def quick = Surround.new(@scale.method(:quick))

        # @return [Boolean] through a table
        def recordable? = @scale.is_a?(Pointwise::FloatTable)

        # @param planes [Array<Numo::NArray>] overwritten
        def call(planes)
          Pointwise::Scratch.use do |scratch|
            luminance = scratch << (planes[0] * LUMINANCE[0])
            [1, 2].each { |i| luminance.inplace + (scratch << (planes[i] * LUMINANCE[i])) }
            scale = scratch << @scale.call(luminance.out_of_place!)
            planes.each { |plane| (plane.inplace * scale).out_of_place! }
          end
          planes
        end
      end
    end
  end
end
