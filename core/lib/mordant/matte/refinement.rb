# frozen_string_literal: true

module Mordant
  module Matte
    # What is done to a matte once its contributors are combined: one class a file in
    # matte/refinements/ that declares its parameters as a step does.
    class Refinement < Declared
      ORDER = %w[specks grow edges blur response invert].freeze # in which they are offered

      # @return [Boolean] it looks at the picture
      def self.sees_picture? = false

      # @return [Boolean] it looks at what the steps before its own make
      def sees_step? = false

      # @param raster [#height]
      # @return [Integer] pixels around one that it depends on
      def margin(_raster) = 0

      # @param matte [Numo::SFloat] [n] of the sight's window, 0..1; never written to
      # @param sight [Sight]
      # @return [Numo::SFloat] [n], new, 0..1, right but for its margin at edges that are not the picture's
      def call(matte, sight) = raise(NotImplementedError, "#{self.class} refines nothing")
    end
  end
end
