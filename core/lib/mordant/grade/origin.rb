# frozen_string_literal: true

module Mordant
  module Grade
    # Where a moment's pictures come from: the source, and what leads from it into the working space. By
    # it mattes see what other steps make of the same frame. Immutable.
    class Origin
      # @param plan [Plan] of any recipe for the source
      # @param moment [Moment] of the source's pictures
      def initialize(plan, moment)
        @plan, @moment = plan, moment
        freeze
      end

      # @param recipe [Recipe] as it is at the frame
      # @param moment [Moment] of which window and how many frames away, at the same raster
      # @return [Frame] what the recipe makes of the source there, in log codes of the working space
      def picture(recipe, moment) = @plan.seen(recipe).picture(@moment.like(moment, origin: self))
    end
  end
end
