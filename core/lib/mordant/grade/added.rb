# frozen_string_literal: true

module Mordant
  module Grade
    # The light that a step adds to a picture, by itself; what it takes away is dark.
    module Added
      module_function

      # @param after [Frame] with the step, in log codes of the working space
      # @param before [Frame] without it, of the same raster
      # @param space [Colour::WorkingSpace]
      # @return [Frame] in log codes
      def of(after, before, space)
        to_light, to_codes = [[space.log, space.linear], [space.linear, space.log]].map { |from, to| Colour::Conversion.new(from:, to:).chain }
        after.with(to_codes.call((to_light.call(after.rgb) - to_light.call(before.rgb)).clip(0.0, nil)))
      end
    end
  end
end
