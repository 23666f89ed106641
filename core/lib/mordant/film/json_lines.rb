# frozen_string_literal: true

require "psych"

module Mordant
  module Film
    # Finds the line of a JSON text that a path such as layers[1].slope is written in; JSON is read as the YAML that it is.
    class JsonLines
      # @param error [JSON::ParserError]
      # @param text [String]
      # @return [Integer] the line that it tells of, else the last one
      def self.of_error(error, text) = error.message[/line (\d+)/, 1]&.to_i || text.lines.size.clamp(1, nil)

      # @param text [String] JSON without fault
      def initialize(text)
        @root = Psych.parse(text).children.first
      end

      # @param path [String]
      # @return [Integer] from 1; of what is not there, where it would be
      def line(path)
        path.scan(/[^.\[\]]+/).reduce(@root) { |node, part| child(node, part) || (return node.start_line + 1) }.start_line + 1
      end

      private

      def child(node, part)
        case node
        when Psych::Nodes::Mapping then node.children.each_slice(2).find { |key, _| key.value == part }&.last
        when Psych::Nodes::Sequence then node.children[part.to_i]
        end
      end
    end
  end
end
