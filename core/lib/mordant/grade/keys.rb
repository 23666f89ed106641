# frozen_string_literal: true

module Mordant
  module Grade
    # A step's parameters at some frames, counted from the first one of what owns it. Between two
    # of them numbers go straight from one to the other, and all else stays as at the first;
    # before the first and after the last nothing moves. Immutable.
    class Keys
      MOST = 200
      FURTHEST = 10_000_000 # frames; below 0 before what was the first one when the key was made

      # @param document [Array<Hash>] of frame and parameters, in order
      # @param kind [Class] of the step
      # @param path [String] for errors
      # @raise [ParameterError]
      def initialize(document, kind:, path:)
        fine = document.is_a?(Array) && document.size <= MOST && document.all? { |key| key.is_a?(Hash) && key["frame"].is_a?(Integer) && key["frame"].abs <= FURTHEST && key["parameters"].is_a?(Hash) }
        raise ParameterError.new(path:, expected: "at most #{MOST} keys of a frame and parameters", found: document) unless fine

        frames = document.map { |key| key["frame"] }
        raise ParameterError.new(path:, expected: "frames one after another", found: frames) unless frames == frames.uniq.sort

        @keys = document.each_with_index.map { |key, index| [key["frame"], kind.new(key["parameters"], path: "#{path}[#{index}].parameters")] }.freeze
        @kind = kind
        freeze
      end

      def empty? = @keys.empty?

      # @return [Integer] see Steps::Step#window, the most of all
      def window = @keys.map { |_, step| step.window }.max || 0

      # @return [Range<Integer>] of owner's frames: before its begin and from its end on nothing moves
      def span = @keys.first[0]..@keys.last[0]

      def neutral? = @keys.all? { |_, step| step.neutral? }

      # @param frame [Integer] from the owner's first one
      # @return [Hash{Symbol => Object}] parameters there
      def at(frame)
        after = @keys.find_index { |place, _| place > frame }
        return @keys.last[1].values unless after
        return @keys.first[1].values if after.zero?

        (from, start), (to, target) = @keys[after - 1, 2]
        between(start.values, target.values, (frame - from).fdiv(to - from))
      end

      def to_a = @keys.map { |frame, step| {"frame" => frame, "parameters" => step.values.transform_keys(&:to_s)} }

      private

      def between(start, target, share)
        start.to_h { |name, value| [name, @kind.parameters.fetch(name).mix(value, target.fetch(name), share)] }
      end
    end
    Keys::NONE = Keys.new([], kind: nil, path: "keys")
  end
end
