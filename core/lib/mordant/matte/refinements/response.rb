# frozen_string_literal: true

module Mordant
  module Matte
    module Refinements
      # A curve over the matte's values.
      class Response < Refinement
        named :response, "Response"

        points :curve, label: "response", across: :share, rest: :diagonal, range: 0.0..1.0, about: "What becomes of the matte's values, from 0 nothing to 1 all."

        STEPS = 1024

        def call(matte, _sight)
          spline = self.class.parameters.fetch(:curve).spline(curve)
          table = Numo::SFloat.cast(spline.call(Numo::DFloat.new(STEPS + 1).seq / STEPS)).clip(0.0, 1.0)
          out = Numo::SFloat.new(matte.size).allocate
          Pointwise.each_tile(matte.size) { |range| out[range] = read(table, matte[range].dup) }
          out
        end

        private

        def read(table, matte)
          place = matte.clip(0.0, 1.0) * STEPS
          at = place.floor.clip(0, STEPS - 1)
          index = Numo::Int64.cast(at)
          from = table[index].dup
          from + (table[index + 1].dup - from) * (place - at)
        end
      end
    end
  end
end
