# frozen_string_literal: true

module Server
  module Pictures
    class Decoding
      # Frames of a clip in a row, and where they come to lie.
      #
      # folder: of the shelf; first, count: frames; reader: see Mordant::Media::Reader#each; width, height: pixels; pause: seconds between
      # the first frame, which somebody waits for, and the others, in which that one is graded.
      Stretch = Struct.new(:folder, :first, :count, :reader, :width, :height, :pause, keyword_init: true) do
        # @yieldparam codes [Mordant::Media::Codes]
        # @yieldparam name [String] on the shelf
        def each
          at = first
          reader.each(first:, count:, width:, height:) do |codes|
            yield codes, "#{folder}/#{at}"
            at += 1
          end
        end

        # @param other [Stretch]
        # @return [Boolean] its first frame is one of these
        def cover?(other) = folder == other.folder && (first...(first + count)).cover?(other.first)
      end
    end
  end
end
