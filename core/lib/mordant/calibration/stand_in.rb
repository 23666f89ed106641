# frozen_string_literal: true

module Mordant
  module Calibration
    # A screen and a probe that are computed, in the place of real ones.
    module StandIn
      module_function

      # @param path [String] a JSON file
      # @return [Hash]
      # @raise [MediaError, ParameterError]
      def description(path)
        raise MediaError.new(path, "the file is not there") unless File.file?(path)

        document = JSON.parse(File.read(path))
        document.is_a?(Hash) ? document : Checks.reject(Library.shown(path), "an object", document)
      rescue JSON::ParserError
        raise MediaError.new(path, "this is not JSON; write a description as docs/probe-protocol.md has it")
      end

      # Three numbers, or one for all three.
      def three(value, path, range)
        list = value.is_a?(Array) ? value : [value] * 3
        Checks.reject(path, "three numbers", value) unless list.size == 3
        list.each_with_index.map { |one, index| Checks.number(one, "#{path}[#{index}]", range) }
      end

      # A chromaticity.
      def chromaticity(value, path)
        Checks.reject(path, "x and y of a chromaticity", value) unless value.is_a?(Array) && value.size == 2
        value.each_with_index.map { |one, index| Checks.number(one, "#{path}[#{index}]", 0.01..0.9) }
      end
    end
  end
end
