# frozen_string_literal: true

module Server
  module Pictures
    # Frames whose noise has been taken away, at the raster of the screen, on disk: what a Noise step takes is kept, so that
    # what follows it is as quick as without it. A name is a digest of all that the step's result depends on, and nothing
    # that comes after it; see Depends.
    class Cleaned
      FOLDER = "noise"
      HELD = 4 # frames in memory, reduced ones too

      # @param desk [Desk]
      # @param limit [Integer] bytes
      def initialize(desk, folder: File.join(Settings.cache, FOLDER), limit: Settings.cache_limit)
        @desk = desk
        @shelf = Shelf.new(folder, ".half", limit:)
        @left = Mordant::Pointwise::Lately.new(HELD)
      end

      # @param feed [Feed]
      # @param kept [Mordant::Noise::Kept] of the recipe at its frame
      # @return [Mordant::Frame] what the step leaves, in log codes of the working space; made and kept if it is not there
      # @raise [Mordant::MediaError] of frames that cannot be read
      def fetch(project, feed, kept)
        name = name(project, feed, kept)
        left = made(project, feed, kept, name) unless @shelf.include?(name)
        @left.fetch([name, 1]) { left || made(project, feed, kept, name) }
      end

      # @param reduction [Integer] see Frame#reduce
      # @return [Mordant::Frame, nil] the same, reduced; nil where it is not there
      # @raise [Mordant::MediaError]
      def small(project, feed, kept, reduction)
        name = name(project, feed, kept)
        @left.fetch([name, reduction]) { fetch(project, feed, kept).reduce(reduction) } if @shelf.include?(name)
      end

      # @return [Boolean] it is there
      def include?(project, feed, kept) = @shelf.include?(name(project, feed, kept))

      # @return [String] of all that the step's result depends on
      def digest(project, feed, kept) = Depends.digest(feed.stamp, grade(project, kept, feed.encoding))

      # @param wish [Wish] of no frame
      # @param frames [Range<Integer>]
      # @return [Array(Array<Integer>, Array<Integer>)] frames that have noise taken away, and those of them that are there
      def frames(wish, frames)
        named = Hash.new { |known, key| known[key] = named(wish, wish.cut.shot(key)) }
        some = wish.cut.timeline.segments(frames.first, frames.size).select { |segment| [segment.outgoing, segment.incoming].compact.any? { |shot| named[shot.key] } }
        there = some.any? ? @shelf.names.to_set : Set.new
        wanted = some.flat_map { |segment| (segment.first...(segment.first + segment.length)).to_a }.filter_map do |frame|
          names = wish.cut.timeline.layers(frame).filter_map { |layer| named[layer.shot.key]&.call(layer.source_frame, frame) }
          [frame, names.all? { |name| there.include?(name) }] if names.any?
        end
        [wanted.map(&:first), wanted.select(&:last).map(&:first)]
      end

      private

      def made(project, feed, kept, name)
        came = came(project, feed, kept.before)
        data = @shelf.read(name)
        left = data && Mordant::Noise::Kept.unpacked(came, data)
        return left if left

        feed.through(@desk.plan(project, kept.upto, feed.encoding)).tap { |made| @shelf.write(name, Mordant::Noise::Kept.packed(came, made)) }
      end

      # With what is kept of another such step before.
      def came(project, feed, recipe)
        kept = Mordant::Noise::Kept.of(recipe)
        kept ? @desk.onward(project, feed, kept, fetch(project, feed, kept)) : feed.through(@desk.plan(project, recipe, feed.encoding))
      end

      def name(project, feed, kept) = placed(digest(project, feed, kept))

      def placed(digest) = "#{digest[0, 2]}/#{digest}"

      # As #name, with what all frames of a shot have in common looked at once.
      #
      # @return [#call, nil] source frame and record frame to a name; nil of a shot that has none
      def named(wish, shot)
        recipe = wish.recipe_of(shot)
        return unless recipe.entries.any? { |entry| Mordant::Noise::Kept.takes?(entry) }

        source, encoding = Depends.frames(shot.clip, *Desk.raster(wish.project)), shot.clip.code_encoding
        still = Mordant::Noise::Kept.of(recipe)&.then { |kept| grade(wish.project, kept, encoding) } unless recipe.moving?
        lambda do |number, frame|
          made = still || Mordant::Noise::Kept.of(recipe.at(frame - shot.record_in))&.then { |kept| grade(wish.project, kept, encoding) }
          made && placed(Depends.digest([source, number], made))
        end
      end

      def grade(project, kept, encoding) = Depends.grade(project, kept.upto, encoding)
    end
  end
end
