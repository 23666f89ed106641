# frozen_string_literal: true

module Mordant
  module Noise
    # What one detail size of a plane is made of: three parts by the way detail runs, down, across and both, or one of all of it. They and
    # what is left are the plane.
    #
    # With L the blur by (1 2 1)/4, ever wider with holes between its taps, and H = L_across f: H - L_down H,
    # L_down (f - H) and f - H - L_down (f - H), or f - L_down H; what is left is L_down H, which is parted further.
    #
    # Source: M. Shensa, The discrete wavelet transform: wedding the a trous and Mallat algorithms, IEEE Trans. Signal Process. 40
    # (1992); parts are simply added up again.
    module Parts
      MOST = 3
      LESS = Pointwise::Sweep.new(2) { |more, less| [more - less] }
      private_constant :LESS

      module_function

      # @param row [Numo::SFloat] of the layout
      # @param layout [Area::Bordered]
      # @param apart [Integer] pixels between taps
      # @param rooms [Array<Numo::SFloat>] MOST of the layout's rooms that are not row, and one for what is left
      # @param ways [Boolean] by the way detail runs
      # @return [Array(Array<Numo::SFloat>, Numo::SFloat)] parts and what is left, in those rooms
      def of(row, layout, apart, rooms, ways:)
        first, second, third, left = rooms
        layout.smooth(row, apart * layout.across, first)
        layout.smooth(first, apart * layout.down, left)
        LESS.call(row, ways ? first : left, into: [second])
        return [[second], left] unless ways

        first.inplace - left
        layout.smooth(second, apart * layout.down, third)
        second.inplace - third
        [[first, second, third].each(&:out_of_place!), left]
      end

      # What is left of the variance of white noise in each part.
      #
      # @param scale [Integer] 0 the finest
      # @param halved [Boolean] of means of two by two pixels, whose finest is scale 1
      # @param ways [Boolean]
      # @return [Array<Float>] as the parts of #of
      def shares(scale, halved:, ways:)
        taps = halved ? {0 => 0.5, 1 => 0.5} : {0 => 1.0}
        (halved ? 1 : 0).upto(scale - 1) { |finer| taps = spread(taps, 2**finer) }
        low = spread(taps, 2**scale)
        own, smooth, common = [[taps, taps], [low, low], [taps, low]].map { |one, other| one.sum { |at, tap| tap * other[at].to_f } }
        fine = own - 2 * common + smooth
        ways ? [smooth * fine, fine * fine, fine * smooth] : [own**2 - 2 * common**2 + smooth**2]
      end

      def spread(taps, apart)
        taps.each_with_object(Hash.new(0.0)) { |(at, tap), made| {-apart => 0.25, 0 => 0.5, apart => 0.25}.each { |off, share| made[at + off] += tap * share } }
      end
      private_class_method :spread
    end
  end
end
