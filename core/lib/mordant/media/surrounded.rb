# frozen_string_literal: true

module Mordant
  module Media
    # Pictures of a clip in the order somebody wants them, each with those around it in the clip; no more
    # are held than that takes.
    module Surrounded
      AT_ONCE = 6 # pictures held where they are wanted backwards

      module_function

      # @param reader [#each] see Reader
      # @param wanted [#to_a] frames, on and on or back and back; some may be left out or stand for longer
      # @param frames [Integer] of the clip
      # @param window [Integer] frames before and after
      # @param raster [Hash] width and height
      # @yieldparam codes [Codes]
      # @yieldparam around [#call] frames away to Codes, or nil where the clip has none; see Grade::Moment.of
      # @raise [MediaError]
      def each(reader, wanted:, frames:, window:, **raster, &block)
        list = wanted.to_a
        return if list.empty?
        return onward(reader, list, frames, window, raster, &block) if list.last >= list.first

        list.each_slice(AT_ONCE) { |some| backward(reader, some, frames, window, raster, &block) }
      end

      def onward(reader, wanted, frames, window, raster)
        from, past = [wanted.first - window, 0].max, wanted.last + 1
        to = (past + window).clamp(past, [frames, past].max)
        held, left, at = {}, wanted.dup, from
        reader.each(first: from, count: to - from, **raster) do |codes|
          held[at] = codes if left.any? && at >= left.first - window
          at += 1
          while left.any? && (at > left.first + window || at == to)
            middle = left.shift
            yield held.fetch(middle), ->(away) { held[middle + away] }
            held.delete_if { |number, _| number < (left.first || to) - window }
          end
        end
      end

      def backward(reader, some, frames, window, raster)
        from, to = [some.min - window, 0].max, [some.max + window + 1, frames].min
        held, at = {}, from
        reader.each(first: from, count: to - from, **raster) do |codes|
          held[at] = codes if some.any? { |number| (number - at).abs <= window }
          at += 1
        end
        some.each { |middle| yield held.fetch(middle), ->(away) { held[middle + away] } }
      end
    end
  end
end
