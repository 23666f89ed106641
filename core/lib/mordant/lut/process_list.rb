# frozen_string_literal: true

module Mordant
  module Lut
    # What a CLF file holds: processes in order. Immutable.
    ProcessList = Struct.new(:id, :name, :descriptions, :input, :output, :nodes, keyword_init: true) do
      # @param nodes [Array<Clf::Node>]
      # @param input [String, nil] what the values going in are, in words
      # @param output [String, nil]
      def initialize(nodes:, id: "mordant", name: nil, descriptions: [], input: nil, output: nil)
        super
        freeze
      end

      def title = name || id

      # @return [Array] Pointwise operations
      def operations = nodes.flat_map(&:operations)
    end
  end
end
