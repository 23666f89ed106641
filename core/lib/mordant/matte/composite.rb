# frozen_string_literal: true

module Mordant
  module Matte
    # Contributors in order, as one matte. Immutable.
    #
    # add takes the greater of both, subtract the lesser of what there is and of the rest,
    # intersect the lesser of both; what is out is as if it were not there. What comes first
    # is added to nothing, or taken from everything. A matte of no contributors acts everywhere.
    class Composite
      KEYS = %w[contributors strength].freeze
      PART_KEYS = %w[id kind mode parameters].freeze
      MODES = %w[add subtract intersect out].freeze
      MOST = 64 # contributors

      # A contributor in its place.
      Part = Struct.new(:id, :mode, :contributor, keyword_init: true)

      # @return [Array<Part>]
      attr_reader :parts
      # @return [Float] 0.0..1.0
      attr_reader :strength

      # @param document [Hash] as parsed from JSON
      # @param path [String] for errors
      # @raise [ParameterError]
      def initialize(document, path: "matte")
        held(path, document, KEYS)
        contributors = document.fetch("contributors", [])
        reject("#{path}.contributors", "a list of at most #{MOST} contributors", contributors) unless contributors.is_a?(Array) && contributors.size <= MOST
        @parts = contributors.each_with_index.map { |part, index| part(part, "#{path}.contributors[#{index}]") }.freeze
        twice = @parts.map(&:id).tally.find { |_, count| count > 1 }
        reject("#{path}.contributors", "ids used once", twice.first) if twice
        @strength = share(document.fetch("strength", 1.0), "#{path}.strength")
        freeze
      end

      # @return [Boolean] it acts everywhere, in full
      def everywhere? = acting.empty? && strength == 1.0

      # @return [Boolean] it depends on the picture, not on the place alone
      def sees_picture? = acting.any? { |part| part.contributor.class.sees_picture? }

      # @param rgb [Numo::SFloat, nil] [3, n] log codes of the working space, as the step sees them;
      #   nil will do where it sees no picture
      # @param moment [Grade::Moment]
      # @param space [Colour::WorkingSpace]
      # @return [Numo::SFloat] [n], 0..1
      def weights(rgb, moment, space)
        made = acting.reduce(nil) { |matte, part| combined(matte, part.contributor.weights(rgb, moment, space), part.mode) }
        made ||= Numo::SFloat.ones(moment.window.size)
        (strength == 1.0) ? made : made * strength
      end

      def to_h
        {"contributors" => parts.map { |part| {"id" => part.id, "kind" => part.contributor.class.id, "mode" => part.mode, "parameters" => part.contributor.values.transform_keys(&:to_s)} },
         "strength" => strength}
      end

      private

      def acting = parts.reject { |part| part.mode == "out" }

      def combined(matte, weights, mode)
        case mode
        when "add" then matte ? Numo::SFloat.maximum(matte, weights) : weights
        when "subtract" then (weights * -1.0 + 1.0).then { |rest| matte ? Numo::SFloat.minimum(matte, rest) : rest }
        else matte ? Numo::SFloat.minimum(matte, weights) : weights
        end
      end

      def part(document, path)
        held(path, document, PART_KEYS)
        id, mode = document.values_at("id", "mode")
        reject("#{path}.id", "a text of 1 to 80 characters", id) unless id.is_a?(String) && id.length.between?(1, 80)
        reject("#{path}.mode", MODES.join(", "), mode) unless MODES.include?(mode ||= "add")
        parameters = document.fetch("parameters", {})
        reject("#{path}.parameters", "an object", parameters) unless parameters.is_a?(Hash)
        Part.new(id: id.dup.freeze, mode:, contributor: kind(document["kind"], path).new(parameters, path: "#{path}.parameters")).freeze
      end

      def kind(id, path)
        Matte.fetch(id)
      rescue UnknownIdError
        reject("#{path}.kind", "one of #{Matte.kinds.map(&:id).join(", ")}", id)
      end

      def held(path, document, keys)
        reject(path, "an object with #{keys.join(", ")}", document) unless document.is_a?(Hash)
        unknown = document.keys - keys
        reject(path, "only #{keys.join(", ")}", unknown.first) unless unknown.empty?
      end

      def share(value, path)
        return value.to_f if value.is_a?(Numeric) && value.real? && value.to_f.between?(0.0, 1.0)

        reject(path, "a number in 0.0..1.0", value)
      end

      def reject(path, expected, found) = raise(ParameterError.new(path:, expected:, found:))
    end
  end
end
