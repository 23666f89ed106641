# frozen_string_literal: true

module Server
  module Pictures
    # Finished pictures for playing, on disk. A picture's name is a digest of what all frames of its stretch depend
    # on: the clips that make it, their recipes and the washes over them, the space, the view and the screen; and after
    # it the frame's place in the stretch. What is changed therefore cannot be found any more, and what is changed
    # back is; of a stretch of which nothing is there no frame is looked for.
    class Kept
      SIZE = "full"

      def self.current = (@current ||= new)

      def initialize(folder: File.join(Settings.cache, "pictures"), limit: Settings.cache_limit)
        @shelf = Shelf.new(folder, ".png", limit:)
      end

      # @param wish [Wish] of stored recipes
      # @param size [String] a smaller one that does where there is none: it is made, and not kept
      # @return [String] PNG
      def fetch(wish, size: SIZE)
        name = name(wish)
        @shelf.read(name) || Mordant::Media::Png.encode(Desk.current.picture(wish, size:).last).tap { |data| @shelf.write(name, data) if size == SIZE }
      end

      # @param wish [Wish] its frame does not matter
      # @param frames [Range<Integer>]
      # @return [Array<Integer>] frames whose pictures are there
      def frames(wish, frames)
        there = @shelf.names.to_set
        return [] if there.empty?

        begun = there.to_set { |name| name[STRETCH] }
        wish.cut.loaded_shots
        stretches = Stretches.new(wish)
        wish.cut.timeline.segments(frames.first, frames.size).flat_map do |segment|
          shots = [segment.outgoing, segment.incoming].compact
          one = stretches.of(shots, segment.first) if stretches.still?(shots)
          next [] unless one.nil? || begun.include?(one)

          (segment.first...(segment.first + segment.length)).select { |frame| there.include?(placed(one || stretches.of(shots, frame), wish.cut.timeline.layers(frame), frame)) }
        end
      end

      private

      STRETCH = %r{\A../\h{64}}
      private_constant :STRETCH

      def name(wish)
        layers = wish.cut.timeline.layers(wish.frame)
        placed(Stretches.new(wish).of(layers.map(&:shot), wish.frame), layers, wish.frame)
      end

      def placed(stretch, layers, frame)
        return "#{stretch}-#{layers.first.source_frame}-#{frame - layers.first.shot.record_in}" if layers.size == 1

        "#{stretch}-#{Depends.digest(layers.map { |layer| [layer.source_frame, layer.share, *layer.wipe&.stamp, frame - layer.shot.record_in] })[0, 32]}"
      end

      # Names of stretches of a cut, each in a folder of its first two letters.
      class Stretches
        def initialize(wish)
          @wish = wish
          @around = Depends.digest(wish.screen.stamp) unless wish.screen.view.aim
          @clips = Hash.new { |known, clip| known[clip] = Depends.frames(clip, *Desk.raster(wish.project)) }
          @shots = Hash.new { |known, key| known[key] = digest(wish.cut.shot(key)) }
        end

        # @param shots [Array<Mordant::Cut::Timeline::Shot>]
        # @return [Boolean] their frames are drawn in one way
        def still?(shots) = !@around.nil? || shots.all? { |shot| @wish.cut.renditions.still?(@wish.cut.shot(shot.key)) }

        # @param shots [Array<Mordant::Cut::Timeline::Shot>] that it is made of
        # @param frame [Integer] one of it
        # @return [String]
        def of(shots, frame)
          around = @around || Depends.digest(@wish.with(frame:).screen.stamp)
          made = Depends.digest(SIZE, shots.map { |shot| @shots[shot.key] }, around, *(@wish.project.mixing if shots.size > 1))
          "#{made[0, 2]}/#{made}"
        end

        private

        def digest(shot) = Depends.digest(@clips[shot.clip], Depends.grade(@wish.project, @wish.whole.recipe_of(shot), shot.clip.source_encoding))
      end
      private_constant :Stretches
    end
  end
end
