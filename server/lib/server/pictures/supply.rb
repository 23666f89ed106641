# frozen_string_literal: true

module Server
  module Pictures
    # What goes into the pictures of a cut: frames of clips, decoded as they are wanted, or test pictures.
    class Supply
      PLAY_AHEAD = 16 # frames decoded in one go
      COPIED_AHEAD = 2
      GRADING = 0.2 # seconds that a picture mostly takes once its frame is decoded

      # @return [FrameStore]
      attr_reader :store

      # @param store [FrameStore]
      def initialize(store)
        @store = store
        @tests = {}
      end

      # @param wish [Wish]
      # @return [Array<Array(Feed, Mordant::Cut::Timeline::Layer)>] layers of a frame; a test picture
      #   has no other under it
      def feeds(wish)
        wish.fed do
          layers = wish.cut.timeline.layers(wish.frame)
          layers = layers.last(1) if wish.test
          layers.map { |layer| [feed(wish, layer), layer] }
        end
      end

      # @param wish [Wish]
      # @return [Feed, nil] of a frame that is one shot's alone
      def alone(wish)
        (feed, _), other = feeds(wish)
        feed unless other
      end

      # The shot at a frame, the incoming one of a dissolve, and what goes into its plan.
      #
      # @return [Feed]
      def incoming(wish) = feeds(wish).last.first

      # Has frames of a wish decoded while all else is looked at.
      #
      # @param wish [Wish]
      def prepare(wish)
        return if wish.still || wish.test

        width, height = raster(wish)
        wish.cut.timeline.layers(wish.frame).each do |layer|
          clip, number = wish.cut.shot(layer.shot.key).clip, layer.source_frame
          store.prepare(clip, number, width:, height:, **decoding(wish, clip, number, width, height)) if (0...clip.frames).cover?(number)
        end
      end

      # Frames of one shot as decoded, for playing.
      #
      # @param shot [Shot]
      # @param source_frame [Integer]
      # @param reduction [Integer]
      # @return [Mordant::Media::Codes]
      def playing(cut, shot, source_frame, reduction)
        whole = Desk.raster(cut.project)
        width, height = whole.map { |edge| edge / reduction }
        store.fetch(shot.clip, source_frame, width:, height:, ahead: PLAY_AHEAD, copy: Copies.current.reader(shot.clip, *whole))
      end

      private

      def raster(wish) = wish.raster || Desk.raster(wish.project)

      def feed(wish, layer)
        shot = wish.cut.shot(layer.shot.key)
        width, height = raster(wish)
        return Feed.new(shot, wish.test.encoding, stamp: ["test", wish.test.id, width, height]) { |reduction, _| test_codes(wish.test, width, height).reduce(reduction) } if wish.test

        Feed.new(shot, shot.clip.code_encoding, stamp: [Depends.frames(shot.clip, width, height), layer.source_frame, *("passing" if wish.passing)]) do |reduction, away|
          number = layer.source_frame + away
          store.fetch(shot.clip, number, width:, height:, reduction:, **decoding(wish, shot.clip, number, width, height)) if (0...shot.clip.frames).cover?(number)
        end
      end

      # How a frame is decoded for a wish; see FrameStore#fetch.
      def decoding(wish, clip, number, width, height)
        copy = Copies.current.reader(clip, width, height) if wish.passing && !store.there?(clip, number, width:, height:)
        return {copy:, ahead: 1} if wish.raster
        return {copy:, ahead: PLAY_AHEAD} if wish.onward

        {copy:, ahead: copy ? COPIED_AHEAD : FrameStore.ahead(clip), pause: GRADING}
      end

      def test_codes(test, width, height) = @tests[[test.id, width, height]] ||= test.codes(width, height)
    end
  end
end
