# frozen_string_literal: true

module Mordant
  module Matte
    # One part of a matte; see Matte.
    class Contributor < Declared
      # @return [Boolean] its weights depend on the picture, not on the place alone
      def self.sees_picture? = true

      # @param rgb [Numo::SFloat] [3, n] log codes of the working space; never written to
      # @param moment [Grade::Moment]
      # @param space [Colour::WorkingSpace]
      # @return [Numo::SFloat] [n], 0..1
      def weights(rgb, moment, space) = raise(NotImplementedError, "#{self.class} has no weights")
    end
  end
end
