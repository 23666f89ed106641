# frozen_string_literal: true

module Server
  module Pictures
    # Writes the picture of a wish as a file of its own, named by project, cut, shot and
    # timecode; one that is there already stays as it is.
    class StillExport
      TEMPLATE = "stills/{project}_{cut}_{shot}"

      # @param wish [Wish]
      # @param format [String] see Mordant::Deliver::Still
      # @raise [Mordant::ParameterError]
      def initialize(wish, format)
        @wish = wish
        @kind = Mordant::Deliver::Still.kind(format)
      end

      # @return [String] path below the delivery folder
      # @raise [Mordant::Error]
      def write
        bytes = @kind.bytes(frame, facts)
        Mordant::Deliver::Still.place(Settings.delivery, name, @kind.extension, bytes)
      rescue SystemCallError => e
        raise Mordant::MediaError.new(name, "the still could not be written: #{e.message}")
      end

      private

      def frame
        return Whole.of(@wish) unless @kind.view

        @wish.project.output(@kind.view).run(Whole.working(@wish))
      end

      def name
        values = {project: @wish.project.name, cut: @wish.cut.name, shot: @wish.shot.name}
        "#{Mordant::Deliver::Naming.new(TEMPLATE).expand(values)}_#{@wish.timecode.to_s.tr(":;", "-")}"
      end

      def facts
        clip = @wish.shot.clip
        Mordant::Media::FrameFacts.new(written: Time.now, rate: @wish.project.rate, timecode: @wish.timecode, name: File.basename(name), source: File.basename(clip.path),
          reel: clip.reel, project: @wish.project.name)
      end
    end
  end
end
