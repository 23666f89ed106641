# frozen_string_literal: true

module Server
  module Pictures
    # A clip that was taken in as a matte, as a source for a Mordant::Matte::Clip: its codes as they are, from none
    # to all. Immutable.
    class MatteClip
      LUMA = [0.2126, 0.7152, 0.0722].freeze # ITU-R BT.709, of codes

      # @param clip [Clip]
      # @param shot [Shot] that it is for
      # @param channel [String] one of Mordant::Matte::Clip::CHANNELS
      # @param offset [Integer] later frames of it
      # @param frame [Integer, nil] of the shot
      def initialize(clip, shot, channel:, offset:, frame: nil)
        @clip, @shot, @channel, @offset, @frame = clip, shot, channel, offset, frame
        freeze
      end

      def moving? = @frame.nil? && @clip.frames > 1

      def at(frame) = MatteClip.new(@clip, @shot, channel: @channel, offset: @offset, frame:)

      def sees_step? = false

      # @return [Array] for JSON
      def stamp = [Depends.frames(@clip, 0, 0), @channel, *(@frame ? number(0) : [@offset, @shot.source_in, @shot.length])]

      # @param sight [Mordant::Matte::Sight]
      # @return [Numo::SFloat] [n]
      # @raise [Mordant::MediaError]
      def weights(sight)
        moment = sight.moment
        whole = Mordant::Grade::Window.whole(moment.width, moment.height)
        codes = moment.window.cut(MatteFrames.codes(@clip, number(moment.away), moment).rgb, whole)
        planes = LUMA.each_index.map { |channel| Numo::SFloat.cast(codes[channel, true]) * (1 / 65_535.0) }
        return planes[%w[red green blue].index(@channel)] unless @channel == "luma"

        planes.zip(LUMA).map { |plane, weight| plane * weight }.reduce(:+).clip(0.0, 1.0)
      end

      private

      def number(away) = (MatteFrames.at(@shot, @frame.to_i + away, length: @clip.frames, start: @clip.start && @clip.start_frames) + @offset).clamp(0, @clip.frames - 1)
    end
  end
end
