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

      # @return [Float, nil] cd/m2 its white stands for, where that is fixed; nil where it
      #   is the white of whatever display
      attr_reader :peak

      # @param operations [Array] Pointwise operations, ACES2065-1 to XYZ D65
      # @param peak [Float, nil]
      def initialize(id:, label:, source:, operations:, peak: nil)
        @id, @label, @source, @operations, @peak = id, label, source, operations.freeze, peak
        freeze
      end

      def to_h = {id:, label:, source:, peak:}
    end
  end
end
