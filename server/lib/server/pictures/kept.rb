# frozen_string_literal: true

module Server
  module Pictures
    # Finished pictures for playing, on disk. A picture's name is a digest of all it depends
    # on: the frames of the clips that make it, their recipes and the washes over them, the
    # space, the view and the screen. What is changed therefore cannot be found any more,
    # and what is changed back is.
    class Kept
      SIZE = "play"

      def self.current = (@current ||= new)

      def initialize(folder: File.join(Settings.cache, "pictures"), limit: Settings.cache_limit)
        @shelf = Shelf.new(folder, ".png", limit:)
      end

      # @param wish [Wish] of stored recipes
      # @return [String] PNG
      def fetch(wish)
        name = name(wish)
        @shelf.read(name) || Mordant::Media::Png.encode(Desk.current.picture(wish, size: SIZE).last).tap { |data| @shelf.write(name, data) }
      end

      # @param wish [Wish] its frame does not matter
      # @param frames [Range<Integer>]
      # @return [Array<Integer>] frames whose pictures are there
      def frames(wish, frames)
        wish.cut.loaded_shots
        shots = Hash.new { |known, shot| known[shot] = shot_digest(wish, shot) }
        around = project_digest(wish)
        frames.select { |frame| @shelf.include?(name(wish, frame, shots, wish.screen.view.aim ? project_digest(wish.with(frame:)) : around)) }
      end

      private

      def name(wish, frame = wish.frame, shots = Hash.new { |_, shot| shot_digest(wish, shot) }, around = project_digest(wish))
        layers = wish.cut.timeline.layers(frame).map { |layer| [shots[wish.cut.shot(layer.shot.key)], layer.source_frame, layer.share, *layer.wipe&.stamp, frame - layer.shot.record_in] }
        digest = Depends.digest(layers, around, *(wish.project.mixing if layers.size > 1))
        "#{digest[0, 2]}/#{digest}"
      end

      def shot_digest(wish, shot)
        Depends.digest(Depends.frames(shot.clip, *Desk.raster(wish.project)), Depends.grade(wish.project, wish.whole.recipe_of(shot), shot.clip.source_encoding))
      end

      def project_digest(wish) = Depends.digest(wish.screen.stamp)
    end
  end
end
