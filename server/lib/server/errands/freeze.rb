# frozen_string_literal: true

module Server
  module Errands
    # Keeps a picture to compare with.
    class Freeze < Picture
      # @raise [Mordant::Error]
      def initialize(cut, body)
        super
        Still.check(cut.project, name: body["name"], encoding: @wish.screen.view.encoding)
      end

      # @return [Hash] still: what is kept of it
      # @raise [Mordant::Error, SystemCallError]
      def call(_errand)
        origin = {cut: @cut.name, shot: @wish.shot.name, timecode: @wish.timecode.to_s}
        {still: Still.keep(@cut.project, name: @body["name"], frame: Pictures::Whole.of(@wish), origin:).to_h}
      end
    end
  end
end
