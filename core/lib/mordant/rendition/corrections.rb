# frozen_string_literal: true

module Mordant
  module Rendition
    # A shot's corrections: a recipe of at most one ForAll, whose id is "all", and of ForTargets, whose ids are those of their targets. Keys and
    # spans are as in any recipe, and strength is how much of a correction is kept. Immutable.
    class Corrections < Grade::Recipe
      NONE = {"steps" => []}.freeze

      class << self
        def serves = :renditions
      end

      # @see Grade::Recipe
      def initialize(document)
        super
        entries.each_with_index do |entry, index|
          path = "steps[#{index}]"
          Checks.reject("#{path}.id", "\"all\" of what is for all targets, and of that alone", entry.id) unless (entry.id == ForAll::ID) == (entry.step.is_a?(ForAll))
          Checks.reject(path, "corrections without matte, bundle or steps side by side", entry.name) if entry.matte || entry.bundle || entry.braid
        end
      end

      # @param frame [Integer] from the shot's first one
      # @return [ForAll] as it is there
      def all_at(frame) = entries.find { |entry| entry.id == ForAll::ID }&.then { |entry| as_kept(entry.at(frame)) } || ForAll.neutral

      # What corrects a target: its own, or what lies between those of the nearest corrected targets by the logarithm of their peaks. At the peak of the HDR
      # picture nothing is corrected; below the smallest corrected one, that one's is taken.
      #
      # @param aim [Aim]
      # @param peaks [Hash{String => Float}] of all targets by their ids, cd/m2
      # @param top [Float] of the HDR picture
      # @param frame [Integer]
      # @return [ForTarget]
      def one_at(aim, peaks, top, frame)
        own = corrected.find { |entry| entry.id == aim.target } and return as_kept(own.at(frame))

        known = corrected.filter_map { |entry| [peaks[entry.id], entry] if peaks[entry.id] }.sort_by(&:first)
        below, above = known.rindex { |at, _| at <= aim.peak }, known.find { |at, _| at > aim.peak }
        low = below ? known[below] : above
        return ForTarget.neutral unless low

        between(low, above || ([top, nil] if top > low.first), aim.peak, frame)
      end

      # @return [Array<String>] ids of targets that are corrected themselves
      def targets = corrected.map(&:id)

      private

      def corrected = entries.select { |entry| entry.step.is_a?(ForTarget) && entry.acts? }

      def between((low, under), upper, peak, frame)
        lower = as_kept(under.at(frame))
        high, over = upper
        return lower if high.nil? || high <= low || peak <= low

        mixed(lower, over ? as_kept(over.at(frame)) : ForTarget.neutral, (Math.log2(peak / low) / Math.log2(high / low)).clamp(0.0, 1.0))
      end

      def as_kept(entry)
        return entry.step.class.neutral unless entry.acts?

        (entry.strength == 1.0) ? entry.step : mixed(entry.step.class.neutral, entry.step, entry.strength)
      end

      def mixed(one, other, share)
        one.bound(one.class.parameters.to_h { |name, parameter| [name, parameter.mix(one.values[name], other.values[name], share)] })
      end
    end
  end
end
