# frozen_string_literal: true

require "fileutils"

module Server
  module Pictures
    # Working copies of clips, for playing; held to a size on disk: what was played longest
    # ago goes first. The folder may be deleted at any time.
    class Copies
      SHARE_OF_FREE = 0.5 # of the disk that is left, at most
      TOUCHED_EVERY = 3600 # seconds between two times that one is marked as played; what is known of it goes with that
      KNOWN = 64 # copies of which facts and frames are known

      def self.current = (@current ||= new)

      # @param folder [String]
      # @param limit [Integer] bytes
      def initialize(folder: File.join(Settings.cache, "copies"), limit: Settings.copies_limit)
        @folder, @limit = folder, limit
        @known = {}
      end

      # @param clip [Clip]
      # @param width [Integer] of the screen's raster
      # @param height [Integer]
      # @return [Mordant::Media::WorkingCopy] there or not
      # @raise [Mordant::MediaError] of a file that is gone
      def of(clip, width, height)
        Mordant::Media::WorkingCopy.new(File.join(@folder, Depends.frames(clip, width, height) + Mordant::Media::WorkingCopy::EXTENSION), rate: clip.rate)
      end

      # One that was there and is gone, swept away or of an older version, is made again, as it is wanted now.
      #
      # @return [Mordant::Media::Reader, nil] frame for frame; nil where no copy is there
      def reader(clip, width, height)
        copy = of(clip, width, height)
        unless copy.exist?
          CopyJob.want(clip) if clip.copy_status == "ready"
          return
        end

        FileUtils.touch(copy.path) if Time.now - File.mtime(copy.path) > TOUCHED_EVERY
        probe = known(copy.path)
        copy.reader(facts: probe.facts, index: probe.index)
      end

      # Makes one; room is made for it first.
      #
      # @yieldparam done [Integer] frames
      # @raise [Mordant::MediaError, SystemCallError]
      def make(clip, width, height, &)
        FileUtils.mkdir_p(@folder)
        sweep
        original = clip.original
        of(clip, width, height).write(Mordant::Media::Slated.new(original, floats: clip.floats?), frames: clip.file_frames, width:, height:,
          pixels: Mordant::Media::WorkingCopy.pixels(original.coding, clip.bit_depth.to_i), &)
        sweep
      end

      # Deletes until the limit holds, and what killed workers have left.
      def sweep
        files = Dir.children(@folder).map { |name| File.join(@folder, name) }
        left, copies = files.partition { |path| path.end_with?(".part") }
        left.each { |path| FileUtils.rm_f(path) if Time.now - File.mtime(path) > 3600 }
        held = copies.map { |path| [File.mtime(path), File.size(path), path] }.sort
        excess = held.sum { |_, size, _| size } - allowed(held.sum { |_, size, _| size })
        held.each do |_, size, path|
          break if excess <= 0

          FileUtils.rm_f(path)
          excess -= size
        end
      rescue Errno::ENOENT
        nil # another worker was quicker
      end

      private

      # @return [Mordant::Media::Probe] of a copy as it is now
      def known(path)
        key = [path, Mordant::Media::FrameIndex.stamp(path)]
        @known.shift while @known.size > KNOWN
        @known[key] ||= Mordant::Media::Probe.new(path)
      end

      def allowed(held) = [@limit, held + (free * SHARE_OF_FREE).to_i].min

      def free = Mordant::Media::Command.run(["df", "-PB1", @folder], path: @folder).lines.last.split[3].to_i
    end
  end
end
