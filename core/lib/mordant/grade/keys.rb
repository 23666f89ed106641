# frozen_string_literal: true

module Mordant
  module Grade
    # The parameters that move, each by keys of its own; see Course. Immutable.
    #
    # As a document: {"exposure": [{"frame": 0, "value": 0.5, "ease": "smooth", "in": 1.0, "out": 0.0}, ...]}. An
    # older form, a list of frames with all parameters each, is read as well.
    class Keys
      # @return [Hash{Symbol => Course}] by the name of the parameter
      attr_reader :courses

      # @param parameters [Hash] of the step or contributor, as parsed from JSON
      # @param document [Object] its keys
      # @param kind [Class] of it
      # @param path [String] of what has both, for errors
      # @return [Array(Declared, Keys)]
      # @raise [ParameterError]
      def self.read(parameters, document, kind:, path:)
        raise ParameterError.new(path: "#{path}.parameters", expected: "an object", found: parameters) unless parameters.is_a?(Hash)

        standing, document = EarlierKeys.new(document, kind:, path: "#{path}.keys").call if document.is_a?(Array)
        [kind.new(parameters.merge(standing || {}), path: "#{path}.parameters"), new(document, kind:, path: "#{path}.keys")]
      end

      # @param document [Hash{String => Array<Hash>}]
      # @raise [ParameterError]
      def initialize(document, kind:, path:)
        raise ParameterError.new(path:, expected: "keys by the names of parameters", found: document) unless document.is_a?(Hash)

        @courses = document.to_h do |name, course|
          parameter = kind.parameters[name.to_sym] or raise ParameterError.new(path:, expected: "parameters of #{kind.id} (#{kind.parameters.keys.join(", ")})", found: name.to_s)
          [name.to_sym, Course.new(course, parameter:, path: "#{path}.#{name}")]
        end.freeze
        freeze
      end

      def empty? = courses.empty?

      # @param declared [Declared] whose parameters they are
      # @param frame [Integer] from the owner's first one
      # @return [Declared] as it is there
      def at(declared, frame) = empty? ? declared : declared.bound(declared.values.merge(courses.transform_values { |course| course.at(frame) }))

      # @param declared [Declared]
      # @return [Array<Declared>] as it is at each key; itself where there is none
      def all(declared) = empty? ? [declared] : frames.map { |frame| at(declared, frame) }

      # @return [Array<Integer>] that have a key, in order
      def frames = courses.values.flat_map { |course| course.keys.map(&:frame) }.uniq.sort

      # @return [Array<Range<Integer>>] see Course#moves
      def moves = courses.values.flat_map(&:moves)

      def to_h = courses.to_h { |name, course| [name.to_s, course.to_a] }

      NONE = new({}, kind: nil, path: "keys")
    end
  end
end
