# frozen_string_literal: true

module Mordant
  module Pointwise
    # A formula of any number of planes in one sweep over them: a Kernel where a picture is worth it, Numo where it is
    # small. The formula does only what Recorded has.
    class Sweep
      FLOAT = 4 # bytes

      # @param count [Integer] planes that it is of
      # @yieldparam planes [Array<Numo::SFloat, Recorded>]; not to be written to
      # @yieldreturn [Array<Numo::SFloat, Recorded>]
      def initialize(count, &formula)
        @formula = formula
        @kernel = Kernel.new([:floats] * count, &formula)
        freeze
      end

      # @param planes [Array<Numo::SFloat>] vectors of one length
      # @return [Array<Numo::SFloat>] new ones; NaN as the formula says
      # @raise [ShapeError] of planes that its memory would be read past
      def call(*planes) = worth?(planes) ? run(planes).first : @formula.call(*planes)

      # The same where a kernel does it and nothing is NaN, as what is read of a table is that has not been made yet (see MadeWhenRead).
      #
      # @return [Array<Numo::SFloat>, nil]
      # @raise [ShapeError]
      def sound(*planes) = worth?(planes) ? run(planes).then { |made, sound| made if sound } : nil

      private

      def worth?(planes) = @kernel.worth?(planes.first.size)

      # @return [Array(Array<Numo::SFloat>, Boolean)] what is made, and that no NaN is among it
      def run(planes)
        size = planes.first.size
        raise ShapeError, "expected vectors of #{size} floats, found #{planes.map { |plane| "#{plane.class} of #{plane.shape}" }.join(", ")}" unless planes.all? { |plane| plane.is_a?(Numo::SFloat) && plane.shape == [size] }

        rooms = Array.new(@kernel.results) { "\0".b * (size * FLOAT) }
        inputs = planes.map(&:to_binary)
        sound = @kernel.run(size, inputs, rooms)
        [rooms.map { |room| Numo::SFloat.from_binary(room) }, sound].tap { [*inputs, *rooms].each(&:clear) }
      end
    end
  end
end
