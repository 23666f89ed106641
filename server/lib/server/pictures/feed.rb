# frozen_string_literal: true

module Server
  module Pictures
    # What goes into a shot's plan at a record frame: the frame of its clip, or a test
    # picture in its place.
    class Feed
      attr_reader :shot

      # @return [String] encoding id
      attr_reader :encoding

      # @return [Array, nil] of all that its codes depend on
      attr_reader :stamp

      # @param shot [Shot]
      # @param encoding [String]
      # @param stamp [Array, nil]
      # @yieldparam reduction [Integer] see Mordant::Media::Codes#reduce
      # @yieldparam away [Integer] frames
      # @yieldreturn [Mordant::Media::Codes, nil] nil where the clip has no such frame
      def initialize(shot, encoding, stamp: nil, &codes)
        @shot, @encoding, @stamp, @codes = shot, encoding, stamp, codes
      end

      # @return [Mordant::Media::Codes]
      def codes(reduction = 1) = @codes.call(reduction, 0)

      # @return [Mordant::Grade::Moment] this frame, with those around it
      def moment(reduction = 1) = Mordant::Grade::Moment.of(codes(reduction), around: ->(away) { @codes.call(reduction, away) })

      # @param plan [Mordant::Grade::Plan]
      # @return [Mordant::Frame] what it makes of this frame
      def through(plan, reduction = 1) = plan.picture(moment(reduction))

      # @param plan [Mordant::Grade::Plan]
      # @param window [Mordant::Grade::Window]
      # @return [Mordant::Frame] what it makes of a part of this frame
      def part(plan, window) = plan.picture(moment.at(window))

      # @param codes [Mordant::Media::Codes]
      # @return [Array<Float>] what its file has for them, of full range
      def values(codes)
        transfer = Mordant::Colour.encoding(encoding).transfer
        shares = Numo::DFloat.cast(codes.rgb) / 65_535
        ((transfer == Mordant::Colour::Transfer::HalfCode) ? transfer.decode(shares) : shares).to_a.flatten
      end

      # @return [Boolean] its codes are light itself
      def linear? = Mordant::Colour.encoding(encoding).linear?
    end
  end
end
