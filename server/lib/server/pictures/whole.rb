# frozen_string_literal: true

module Server
  module Pictures
    # The picture of a wish at the project's full raster, as a file of the view has it.
    module Whole
      module_function

      # @param wish [Wish]
      # @return [Mordant::Frame] in the view's codes
      # @raise [Mordant::MediaError]
      def of(wish)
        project = wish.project
        return wish.screen.finished(wish.still.frame(project.width, project.height)).first if wish.still

        wish.screen.measured(working(wish))
      end

      # @return [Mordant::Frame] log codes of the working space
      # @raise [Mordant::ParameterError] of a frame outside the cut
      def working(wish)
        found = nil
        wish.cut.programme { |shot| wish.whole.recipe_of(shot) }.each(first: wish.frame, count: 1) { |frame, _| found = frame }
        found || raise(Mordant::ParameterError.new(path: "frame", expected: "a frame of the cut", found: wish.frame))
      end
    end
  end
end
