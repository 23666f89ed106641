# frozen_string_literal: true

module Mordant
  module Grade
    # What a plan is run for: a frame, at a raster, and the part of it that is wanted. All that
    # changes with time or place asks the moment. Immutable.
    class Moment
      # @return [Integer] pixels of the whole picture
      attr_reader :width, :height
      # @return [Window] that is wanted
      attr_reader :window
      # @return [Integer] frames from the one that is asked for
      attr_reader :away
      # @return [Origin, nil] the source that all of it comes from
      attr_reader :origin

      # @param picture [Media::Codes, Frame]
      # @param around [#call, nil] frames away to a picture of the same clip, or nil where it has none
      # @return [Moment] of the whole of it
      def self.of(picture, around: nil)
        new(width: picture.width, height: picture.height) { |away| away.zero? ? picture : around&.call(away) }
      end

      # @yieldparam away [Integer] frames
      # @yieldreturn [Media::Codes, Frame, nil] the whole picture there
      def initialize(width:, height:, window: Window.whole(width, height), away: 0, origin: nil, &pictures)
        @width, @height, @window, @away, @origin, @pictures = width, height, window, away, origin, pictures
        freeze
      end

      # @return [Moment] of another part
      def at(window) = (window == @window) ? self : Moment.new(width:, height:, window:, away:, origin:, &@pictures)

      # @param origin [Origin]
      # @return [Moment]
      def from(origin) = Moment.new(width:, height:, window:, away:, origin:, &@pictures)

      # @param moment [Moment] that says where and when
      # @return [Moment] of this one's pictures there
      def like(moment, origin: self.origin) = Moment.new(width:, height:, window: moment.window, away: moment.away, origin:, &@pictures)

      # @param margin [Integer] pixels
      # @return [Moment] of more around, as far as the picture goes
      def grown(margin) = at(window.grown(margin, self))

      # @param frames [Integer] later, or earlier when negative
      # @return [Moment, nil] nil where the clip has no such frame
      def neighbour(frames)
        return self if frames.zero?

        Moment.new(width:, height:, window:, away: @away + frames, origin:, &@pictures) if @pictures.call(@away + frames)
      end

      # What goes into a plan, through its first chain.
      #
      # @param chain [Pointwise::Chain]
      # @return [Numo::SFloat] [3, n] of the window
      def entered(chain)
        picture = @pictures.call(@away)
        part = window.cut(picture.rgb, Window.whole(width, height))
        picture.is_a?(Media::Codes) ? chain.from_codes(part) : chain.call(part)
      end

      # @return [Window] of the whole picture without bars that are in the source
      def active
        picture = @pictures.call(@away)
        ActiveArea.of(picture.rgb, picture.width, picture.height, most: picture.is_a?(Media::Codes) ? 65_535.0 : 1.0)
      end

      # Centres of the window's pixels, from the middle of the picture.
      #
      # @return [Array<Numo::SFloat>] [1, width] across and [height, 1] down, in pixels
      def places
        across = Numo::SFloat.new(window.width).seq + (window.left + 0.5 - width / 2.0)
        down = Numo::SFloat.new(window.height).seq + (window.top + 0.5 - height / 2.0)
        [across.reshape(1, window.width), down.reshape(window.height, 1)]
      end
    end
  end
end
