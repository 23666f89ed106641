# frozen_string_literal: true

module Mordant
  module Rendition
    # What lies beyond a threshold, brought nearer: x / (1 + x^p)^(1/p), which goes on from the threshold with slope 1 and comes to rest at 1.
    #
    # Source: Academy TB-2021-001, compression function with power; scale by which a far place comes to lie at the edge: its equation for it.
    module Bend
      POWER = 1.2

      module_function

      # @param far [Float] what comes to lie at 1
      # @param near [Float] threshold, below 1
      # @return [Float] that distances beyond the threshold are counted in
      def scale(far, near) = (far - near) / (((1 - near) / (far - near))**-POWER - 1)**(1 / POWER)

      # @param beyond [Numo::SFloat, Numo::DFloat] 0.0 and more
      # @return [Numo::NArray] by a table for single floats
      def call(beyond) = beyond.is_a?(Numo::SFloat) ? TABLE.call(beyond) : of(beyond)

      def of(beyond) = beyond / (Colour::Piecewise.power(beyond, POWER) + 1.0)**(1 / POWER)

      TABLE = Pointwise::FloatTable.new(method(:of))
      private_constant :TABLE
    end
  end
end
