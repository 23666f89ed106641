# frozen_string_literal: true

module Mordant
  module Film
    # A layer's characteristic curve: density above base and fog over the logarithm of exposure. Immutable.
    #
    #   D(h) = slope * (s(h - toe, a) - s(h - shoulder, b)),   s(x, w) = w ln(1 + e^(x / w))
    #
    # A straight line of that slope between two bends, which are a and b wide in log exposure; 0 far below the toe, and
    # slope * (shoulder - toe) far above the shoulder. It rises everywhere.
    #
    # Source: the shape and its terms are those of the curve of F. Hurter and V. C. Driffield, Photochemical
    # investigations (1890); the sum of two softplus functions is ours.
    class Characteristic
      # What is left of the slope beyond the bends where a range is wholly relaxed.
      BEYOND = 0.25

      # @return [Float] density for one unit of log exposure, on the straight line
      attr_reader :slope
      # @return [Float] log exposures at which its bends have their middle
      attr_reader :toe, :shoulder

      # @param toe_width [Float] of the bend, in log exposure
      # @param shoulder_width [Float] the same
      # @param relaxed [Float] 0.0..1.0: how much of the slope goes on beyond both bends, as a share of BEYOND
      def initialize(slope:, toe:, shoulder:, toe_width:, shoulder_width:, relaxed: 0.0)
        @slope, @toe, @shoulder, @toe_width, @shoulder_width = slope, toe, shoulder, toe_width, shoulder_width
        @beyond = relaxed * BEYOND
        freeze
      end

      # @param exposure [Numo::DFloat] logarithms to the base of 10
      # @return [Numo::DFloat] density above base and fog
      def call(exposure)
        density = Film.bend(exposure - toe, @toe_width) - Film.bend(exposure - shoulder, @shoulder_width)
        density += (Film.bend(exposure - shoulder, @shoulder_width) - Film.bend(toe - exposure, @toe_width)) * @beyond if @beyond.positive?
        density * slope
      end

      # @return [Float] density above base and fog that it comes near to
      def greatest = slope * (shoulder - toe)

      # Developed longer or shorter, which a push or a pull of exposure goes with.
      #
      # @param stops [Float] of push, below 0 of pull
      # @return [Characteristic] a steeper one of greater speed
      def developed(stops)
        with(slope: slope * (1 + STEEPER * stops), toe: toe - FASTER * stops, shoulder: shoulder - FASTER * stops)
      end
      STEEPER = 0.09 # of the slope, a stop
      FASTER = 0.12 # of log exposure, a stop

      # Moved by hand; the shoulder stays NARROWEST beyond the toe.
      #
      # @param steeper [Float] times its slope
      # @param toe [Float] log exposure that it is moved by, and shoulder
      # @param faster [Float] log exposure that all of it is moved down by
      # @return [Characteristic]
      def shaped(steeper:, toe:, shoulder:, faster:)
        begins = self.toe + toe - faster
        with(slope: slope * steeper, toe: begins, shoulder: [self.shoulder + shoulder - faster, begins + NARROWEST].max)
      end
      NARROWEST = 0.2

      # @param share [Float] 0.0..1.0
      # @return [Characteristic] whose limits are relaxed by so much
      def relaxed(share) = with(relaxed: share)

      private

      def with(**other)
        self.class.new(slope:, toe:, shoulder:, toe_width: @toe_width, shoulder_width: @shoulder_width, relaxed: @beyond / BEYOND, **other)
      end
    end
  end
end
