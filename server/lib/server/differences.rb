# frozen_string_literal: true

module Server
  # What a new version of a list changes of a cut, as a person reads it.
  class Differences
    # @param cut [Cut]
    # @param conforming [Conforming]
    def initialize(cut, conforming)
      @cut = cut
      @recut = conforming.recut(cut)
      @names = conforming.conform.placed.map { |one| [one.event&.number, one.event ? one.event.clip || one.event.reel : "black"] }
      @order = @recut.shots.each_with_index.to_h { |shot, index| [shot.key, index] }
      @graded = Shot.where(id: @recut.differences.filter_map { |one| (one.before || one.from)&.key }).includes(:recipes).to_h { |shot| [shot.id, shot.recipes.any? { |recipe| recipe.document["steps"].any? }] }
    end

    # @return [Array<Hash>] for JSON
    def to_a = @recut.differences.map { |one| told(one) }

    private

    def told(one)
      shot = one.before || one.from
      number, name = one.after && @names[@order.fetch(one.after.key)]
      {kind: one.kind, shot: one.before&.key, name: shot&.name || name, event: number, from: one.from&.name, graded: shot ? @graded.fetch(shot.key, false) : false, moved: one.moved || false,
       head: one.head || 0, tail: one.tail || 0, length: one.after&.length, was: one.before&.length, record: one.after && @cut.timecode(one.after.record_in).to_s,
       was_at: one.before && @cut.timecode(one.before.record_in).to_s, words: words(one)}
    end

    def words(one)
      case one.kind
      when "kept" then "kept"
      when "moved" then "moved"
      when "new" then new_words(one)
      when "gone" then @graded[one.before.key] ? "gone; its grade stays in the attic" : "gone"
      else [*("moved" if one.moved), *ends(one), *("another speed" if one.retimed), *("another transition" if one.transition)].join(", ")
      end
    end

    def new_words(one)
      return "back from the attic, with its grade" if one.after.key.is_a?(Integer)

      one.from ? "new, with the grade of #{one.from.name}" : "new"
    end

    def ends(one)
      return [] if one.retimed

      [["front", one.head], ["end", one.tail]].reject { |_, frames| frames.zero? }.map { |end_, frames| "#{frames.abs} #{(frames.abs == 1) ? "frame" : "frames"} #{frames.positive? ? "less" : "more"} at its #{end_}" }
    end
  end
end
