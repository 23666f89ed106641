# frozen_string_literal: true

module Server
  module Pictures
    # A small picture of a clip's middle, as its encoding is assigned, for the Intake room.
    class ClipPicture
      WIDTH = 160 # pixels
      HEIGHT = 90

      # @param clip [Clip]
      def initialize(clip)
        @clip = clip
      end

      # @return [String] PNG
      # @raise [Mordant::MediaError]
      def png
        project = @clip.project
        scale = [WIDTH.fdiv(@clip.width), HEIGHT.fdiv(@clip.height)].min
        width, height = [@clip.width, @clip.height].map { |edge| [(edge * scale).round, 1].max }
        codes = Desk.current.store.fetch(@clip, @clip.frames / 2, width:, height:, ahead: 1)
        plan = Desk.current.plan(project, Mordant::Grade::Recipe.new(Mordant::Grade::Recipe::EMPTY_DOCUMENT), @clip.code_encoding)
        screen = Screens.of(project, nil)
        working = plan.run(codes)
        Mordant::Media::Png.encode(screen.drawn(working, screen.measured(working)))
      end
    end
  end
end
