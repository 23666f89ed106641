# frozen_string_literal: true

module Server
  module Pictures
    # A frame of the programme that lies under a cut, as it was finished; stands where a KeptPicture does.
    class ProgrammePicture
      # @param lone [Lone] see Lone.programme
      def initialize(lone)
        place = lone.timeline.shots.first
        @clip, @number = lone.shot(place.key).clip, place.source_in
      end

      # @return [String] id
      def encoding = @clip.code_encoding

      # @return [Mordant::Frame] within that raster
      # @raise [Mordant::MediaError]
      def frame(width, height, reduction: 1) = Desk.current.store.fetch(@clip, @number, width:, height:, reduction:).frame(encoding:)
    end
  end
end
