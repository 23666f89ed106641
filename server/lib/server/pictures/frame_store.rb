# frozen_string_literal: true

module Server
  module Pictures
    # Decoded frames, as their files have them, at the raster of the screen: the
    # latest in memory, more on disk.
    #
    # A frame's key holds all it depends on (file, size and time of change,
    # raster, range), so a stale one cannot be found. The folder may be deleted
    # at any time.
    class FrameStore
      AHEAD = 8 # frames decoded in one go
      MOMENT = 0.2 # seconds
      MEMORY = 96 * 1024 * 1024 # bytes of the latest frames; one that is larger is not held

      def initialize(folder: File.join(Settings.cache, "frames"), limit: Settings.cache_limit)
        @shelf = Shelf.new(folder, ".rgb48", limit:)
        @decoding = Decoding.new(@shelf)
        @held = {}
        @lock = Mutex.new
      end

      # @param clip [Clip]
      # @param number [Integer] source frame
      # @param reduction [Integer] see Mordant::Media::Codes#reduce
      # @param how [Hash] how it is decoded when it is not there yet: ahead, frames in one go; copy, a Mordant::Media::Reader of a working
      #   copy in place of the original; pause, see Decoding::Stretch
      # @return [Mordant::Media::Codes]
      # @raise [Mordant::MediaError]
      def fetch(clip, number, width:, height:, reduction: 1, **how)
        key = key(clip, number, width, height, how)
        return remembered(key) || keep(key, stored(key, width, height) || decoded(clip, key, width, height, how)) if reduction == 1

        remembered([*key, reduction]) || keep([*key, reduction], fetch(clip, number, width:, height:, **how).reduce(reduction))
      end

      # Has a frame decoded, if it is not there, while whoever wants it soon does something else.
      #
      # @see #fetch
      def prepare(clip, number, width:, height:, **how)
        key = key(clip, number, width, height, how)
        @decoding.prepare(stretch(clip, key, width, height, how)) unless here?(key)
      end

      # @return [Boolean] the frame of the original has been decoded already
      def there?(clip, number, width:, height:) = here?(key(clip, number, width, height, {}))

      # Waits until all that is being decoded has come.
      def finish = @decoding.finish

      # Frames of a clip that are decoded in one go: no more than take a moment.
      #
      # @param clip [Clip]
      # @return [Integer]
      def self.ahead(clip) = clip.decoding_speed ? (clip.decoding_speed * MOMENT).ceil.clamp(1, AHEAD) : AHEAD

      private

      def key(clip, number, width, height, how) = ["#{Depends.frames(clip, width, height)}#{"-copy" if how[:copy]}", number]

      def here?(key) = @lock.synchronize { @held.key?(key) } || @shelf.include?(key.join("/"))

      def remembered(key)
        @lock.synchronize { @held[key] = @held.delete(key) if @held.key?(key) }
      end

      def keep(key, codes)
        @lock.synchronize do
          @held[key] = codes
          @held.shift while @held.sum { |_, held| held.rgb.byte_size } > MEMORY
        end
        codes
      end

      def stored(key, width, height)
        data = @shelf.read(key.join("/"))
        return unless data && data.bytesize == width * height * 6

        rgb = Numo::UInt16.from_binary(data, [3, width * height])
        data.clear
        Mordant::Media::Codes.new(rgb, width:, height:)
      end

      def decoded(clip, key, width, height, how) = @decoding.first(stretch(clip, key, width, height, how)) { stored(key, width, height) }

      def stretch(clip, (folder, number), width, height, how)
        reader = Mordant::Media::Slated.new(how[:copy] ? clip.pacing(how[:copy]) : clip.reader, floats: clip.floats?)
        Decoding::Stretch.new(folder:, first: number, count: [how.fetch(:ahead, AHEAD), clip.frames - number].min, reader:, width:, height:, pause: how.fetch(:pause, 0))
      end
    end
  end
end
