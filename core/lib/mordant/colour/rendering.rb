# frozen_string_literal: true

module Mordant
  module Colour
    # The way from scene light (ACES2065-1) to display light (XYZ, D65): a view
    # of the scene for one kind of target.
    class Rendering
      extend Registry

      class << self
        def family = "rendering"

        def folder = Renderings
      end

      attr_reader :id, :label, :source, :operations

      # @param operations [Array] Pointwise operations, ACES2065-1 to XYZ D65
      def initialize(id:, label:, source:, operations:)
        @id, @label, @source, @operations = id, label, source, operations.freeze
        freeze
      end

      def to_h = {id:, label:, source:}
    end
  end
end
