# frozen_string_literal: true

module Mordant
  module Rendition
    # Reads the levels of single frames of an HDR picture, of what is brightest of red, green and blue.
    #
    # A frame's least level is that below which FEW of its pixels lie, its greatest that above which FEW do, its mean that of light.
    # The HDR picture is made of some pixels alone: the darkest and the brightest by what a grade has made of them, more or less, among which those
    # levels are found, and some evenly spread, of which the mean is taken.
    # Source: the brightest of three and the mean as in CTA-861.3, annex P.
    class Gauge
      FEW = 0.0001 # of the pixels
      ENDS = 0.004 # of the pixels, dark or bright, that are looked at
      SPREAD = 8192 # pixels of the spread, or somewhat more
      GAMUTS = %w[bt709 p3-d65].freeze # the HDR picture is one of BT.2020
      SEEN = 0.01 # of 100 cd/m2: darker colours are in no gamut's way
      DARK = 0.05 # PQ code up to which even lines are bars: 0.06 cd/m2
      CODES = 65_535.0

      # @param chain [Pointwise::Chain] from codes of 0..65535 to PQ codes of BT.2020
      # @param graded [Pointwise::Chain] to the same from log codes of the working space
      def initialize(chain, graded)
        @chain = chain
        @gamuts = GAMUTS.to_h { |name| [name, Pointwise::Chain.new([Pointwise::Matrix.new(Colour::Primaries::REC2020.to(Colour::GamutLimit::ALL.fetch(name)))])] }
        grey = Numo::SFloat.linspace(0.0, 1.0, 257)
        @dark = grey[(Gauge.most(graded.call(Numo::NArray.vstack([grey] * 3))) <= DARK).where[-1] || 0]
      end

      # Where a frame is picture, and not bars.
      #
      # @param planes [Numo::UInt16] [3, width * height] log codes of 0..65535
      # @return [Array<Float>, nil] see Levels; nil without bars
      def active(planes, width, height)
        at = Grade::ActiveArea.of(planes, width, height, most: CODES, dark: @dark)
        Gauge.area(at.left.fdiv(width), at.top.fdiv(height))
      end

      # @return [Array<Float>, nil] what is picture in either
      def self.joined(one, other)
        (one && other) ? area(*[one, other].transpose.first(2).map(&:min)) : nil
      end

      def self.area(left, top) = (left + top).positive? ? [left, top, 1.0 - 2 * left, 1.0 - 2 * top].map { |share| share.round(6) } : nil

      # @param planes [Numo::UInt16] [3, width * height] codes
      # @param graded [Numo::UInt16] the same as graded, more or less: log codes of 0..65535
      # @param active [Array<Float>, nil] see Levels
      # @return [Array(Array<Float>, Hash)] least, mean and greatest, cd/m2; and reach, see Levels
      def read(planes, graded, width, height, active)
        planes, graded = [planes, graded].map { |one| Gauge.within(one, width, height, active) }
        count = planes.shape[1]
        spread, dark, bright = picked(graded, count)
        codes = @chain.from_codes(planes[true, Numo::NArray.hstack([spread, dark, bright])].dup)
        most = nits(Gauge.most(codes))
        low, high = most[spread.size...(spread.size + dark.size)], most[(spread.size + dark.size)..]
        few = (count * FEW).floor
        [[low.sort[[few, low.size - 1].min], most[0...spread.size].mean, high.sort[[high.size - 1 - few, 0].max]], reach(codes, most)]
      end

      # @return [Numo::NArray] [n], the greatest of three
      def self.most(planes) = [1, 2].reduce(planes[0, true]) { |high, channel| planes.class.maximum(high, planes[channel, true]) }

      # @return [Numo::NArray] the active picture alone
      def self.within(planes, width, height, active)
        return planes unless active

        left, top, across, down = active.zip([width, height] * 2).map { |share, edge| (share * edge).round }
        planes.reshape(3, height, width)[true, top...(top + down), left...(left + across)].dup.reshape(3, across * down)
      end

      private

      def nits(codes) = Colour::Transfer::PQ.decode(Numo::DFloat.cast(codes)) * 100.0

      # Places of pixels: spread, darkest and brightest.
      #
      # @return [Array<Numo::Int64>]
      def picked(planes, count)
        most = Gauge.most(planes)
        sums = most.bincount(minlength: CODES.to_i + 1).cumsum
        low, high = [ENDS, 1.0 - ENDS].map { |share| (sums >= (count * share).ceil).where[0] }
        ends = ((most <= low) | (most >= high)).where
        values = most[ends]
        every = [count / SPREAD, 1].max
        [Numo::Int64.new((count - 1) / every + 1).seq * every, *[[values < low, values.eq(low)], [values > high, values.eq(high)]].map { |beyond, same| Numo::NArray.hstack([ends[beyond.where], thinned(ends[same.where], count)]) }]
      end

      # Of a flat picture very many have the very code at which an end begins: some of those do.
      def thinned(places, count)
        step = places.size / [(count * ENDS * 2).ceil, 256].max + 1
        (step == 1) ? places : places[(0...places.size).step(step)]
      end

      def reach(codes, most)
        seen = (most > SEEN * 100.0).where
        return GAMUTS.to_h { |name| [name, [0.0] * 3] } if seen.empty?

        colours = LIGHT.call(codes[true, seen].dup)
        @gamuts.transform_values do |chain|
          inside = chain.call(colours)
          top = Gauge.most(inside)
          (0..2).map { |channel| ((top - inside[channel, true]) / top).max.to_f.round(4) }
        end
      end

      LIGHT = Pointwise::Chain.new([Pointwise::Curve.new(Colour::Transfer::PQ.method(:decode), domain: Pointwise::Curve::LOG)])
      private_constant :LIGHT
    end
  end
end
