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
        @held = {}
        @lock = Mutex.new
      end

      # @param clip [Clip]
      # @param number [Integer] source frame
      # @param reduction [Integer] see Mordant::Media::Codes#reduce
      # @param ahead [Integer] frames to decode in one go when it is not there yet
      # @param copy [Mordant::Media::Reader, nil] a working copy to decode instead of the original
      # @return [Mordant::Media::Codes]
      # @raise [Mordant::MediaError]
      def fetch(clip, number, width:, height:, reduction: 1, ahead: AHEAD, copy: nil)
        key = ["#{Depends.frames(clip, width, height)}#{"-copy" if copy}", number]
        return remembered(key) || keep(key, stored(key, width, height) || decoded(clip, copy, key, width, height, ahead)) if reduction == 1

        remembered([*key, reduction]) || keep([*key, reduction], fetch(clip, number, width:, height:, ahead:, copy:).reduce(reduction))
      end

      # @return [Boolean] the frame of the original has been decoded already
      def there?(clip, number, width:, height:)
        key = [Depends.frames(clip, width, height), number]
        @lock.synchronize { @held.key?(key) } || @shelf.include?(key.join("/"))
      end

      # Frames of a clip that are decoded in one go: no more than take a moment.
      #
      # @param clip [Clip]
      # @return [Integer]
      def self.ahead(clip) = clip.decoding_speed ? (clip.decoding_speed * MOMENT).ceil.clamp(1, AHEAD) : AHEAD

      private

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

      # Who comes while another process decodes mostly finds its frame afterwards.
      def decoded(clip, copy, key, width, height, ahead)
        @shelf.alone(key.first) { stored(key, width, height) || decode(clip, copy, key, width, height, ahead) }
      end

      def decode(clip, copy, key, width, height, ahead)
        stamp, number = key
        wanted = nil
        count = [ahead, clip.frames - number].min
        at = number
        Mordant::Media::Slated.new(copy ? clip.pacing(copy) : clip.reader, floats: clip.floats?).each(first: number, count:, width:, height:) do |codes|
          wanted ||= codes
          codes.rgb.to_binary.tap { |data| @shelf.write("#{stamp}/#{at}", data) }.clear
          at += 1
        end
        wanted
      rescue Mordant::MediaError
        raise unless wanted # later frames may be bad while this one is good

        wanted
      end
    end
  end
end
