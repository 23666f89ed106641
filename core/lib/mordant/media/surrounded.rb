# frozen_string_literal: true

module Mordant
  module Media
    # Pictures of a clip in order, each with those around it; no more are held than that takes.
    module Surrounded
      module_function

      # @param reader [#each] see Reader
      # @param first [Integer] frame
      # @param count [Integer]
      # @param frames [Integer] of the clip
      # @param window [Integer] frames before and after
      # @param raster [Hash] width and height
      # @yieldparam codes [Codes]
      # @yieldparam around [#call] frames away to Codes, or nil where the clip has none; see Grade::Moment.of
      # @raise [MediaError]
      def each(reader, first:, count:, frames:, window:, **raster)
        from, past = [first - window, 0].max, first + count
        to = (past + window).clamp(past, [frames, past].max)
        held, wanted, at = {}, first, from
        reader.each(first: from, count: to - from, **raster) do |codes|
          held[at] = codes
          at += 1
          while wanted < past && (at > wanted + window || at == to)
            middle = wanted
            yield held.fetch(middle), ->(away) { held[middle + away] }
            held.delete(middle - window)
            wanted += 1
          end
        end
      end
    end
  end
end
