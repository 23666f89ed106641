# frozen_string_literal: true

module Mordant
  module Grade
    # Keys as recipes had them before each parameter had its own: frames with all parameters each. They say the
    # same as keys of parameters: straight between two frames, except for curves and texts, which stood still until the next.
    class EarlierKeys
      # @param document [Array<Hash>] of frame and parameters, in order
      # @param kind [Class] of the step or contributor
      # @param path [String] for errors
      # @raise [ParameterError]
      def initialize(document, kind:, path:)
        fine = document.size <= Course::MOST && document.all? { |key| key.is_a?(Hash) && key["frame"].is_a?(Integer) && key["frame"].abs <= Course::FURTHEST && key["parameters"].is_a?(Hash) }
        raise ParameterError.new(path:, expected: "at most #{Course::MOST} keys of a frame and parameters", found: document) unless fine

        frames = document.map { |key| key["frame"] }
        raise ParameterError.new(path:, expected: "frames one after another", found: frames) unless frames == frames.uniq.sort

        @kind = kind
        @keys = document.each_with_index.map { |key, index| [key["frame"], kind.new(key["parameters"], path: "#{path}[#{index}].parameters").values] }
      end

      # @return [Array(Hash, Hash)] parameters that stand still, and keys of those that move
      def call
        return [{}, {}] if @keys.empty?

        moving, standing = @keys.first.last.keys.partition { |name| moves?(name) }
        [standing.to_h { |name| [name.to_s, @keys.first.last[name]] },
          moving.to_h { |name| [name.to_s, @keys.map { |frame, values| {"frame" => frame, "value" => values[name], "ease" => holds?(name) ? "hold" : "straight"} }] }]
      end

      private

      # A key that is alone says where somebody began.
      def moves?(name)
        values = @keys.map { |_, all| all[name] }.uniq
        values.size > 1 || (@keys.one? && values.first != @kind.parameters[name].neutral_value)
      end

      def holds?(name) = [Declared::PointsParameter, Declared::TextParameter].any? { |one| @kind.parameters[name].is_a?(one) }
    end
  end
end
