# frozen_string_literal: true

module Mordant
  module Noise
    # Takes from each detail of a plane what noise has put there: the share that is left is Wiener's, by the energy of its
    # neighbourhood. With a first try at the picture, its energy is the picture's own.
    #
    #   d' = d max(0, 1 - k s^2 / E)     E: mean of d^2 about it, s^2: variance of noise at its size, way and level
    #   d' = d P / (P + k s^2)           P: mean of the first try's d^2
    #
    # All of it happens in rooms that are made once. Coarse detail is looked at in means of blocks of two pixels, and what is taken of it drawn back.
    #
    # Source: M. K. Mihcak, I. Kozintsev, K. Ramchandran, P. Moulin, Low-complexity image denoising based on statistical modeling of wavelet
    # coefficients, IEEE Signal Process. Lett. 6 (1999); S. Ghael, A. Sayeed, R. Baraniuk, Improved wavelet denoising via empirical
    # Wiener filtering, Proc. SPIE 3169 (1997).
    class Shrinkage
      MORE = [1.1, 2.6, 2.6].freeze # k of each plane
      AGAIN = [0.75, 1.8, 1.8].freeze # k, with a first try
      FINE = 2 # detail sizes that are looked at pixel by pixel
      WAYS = [true, false, false].freeze # of each plane: parted by the way detail runs
      NEAR = 9.0 # pixels of a neighbourhood

      # @return [Integer] pixels around one that it depends on
      def self.margin = 2 * BORDER + 6
      BORDER = 2**(Details::SCALES - 1) + 4

      # @param window [Grade::Window]
      # @param level [Numo::SFloat] [n] luma
      # @param left [Array<Numo::SFloat>, nil] [n] share of the variance of noise that is left in each plane; nil: all
      # @param profile [Profile]
      # @param sizes [Array<Float>] how much of the noise of each detail size goes
      def initialize(window, level, left, profile, sizes: Array.new(Details::SCALES, 1.0))
        @window, @profile, @sizes = window, profile, sizes
        @blocks = Area::Blocks.new(2)
        @whole = ground(window.height, window.width, level, left, halved: false)
        small = means(level)
        @half = ground(*small.shape, flat(small), each_once(left) { |one| flat(means(one)) }, halved: true)
      end

      # @param planes [Array<Numo::SFloat>]
      # @param strengths [Array<Float>] of each, times the noise that there is
      # @param tries [Array<Numo::SFloat>] planes that have less noise; none: there are none yet
      # @return [Array<Numo::SFloat>]
      def call(planes, strengths, tries: [])
        planes.each_index.map { |index| strengths[index].zero? ? planes[index] : cleaned(planes[index], tries[index], index, strengths[index]) }
      end

      # Gives its rooms back, which are large.
      def free = [@whole, @half].each { |ground| ground.rooms.each { |room| room&.free } && ground.rooms.clear }

      private

      # One raster: the layout, where each pixel's level stands in the profile, how much of each plane's noise is left, and rooms to work in.
      Ground = Struct.new(:layout, :spots, :left, :halved, :rooms, keyword_init: true) do
        # @param at [Integer, Range]
        def room(at) = at.is_a?(Range) ? at.map { |one| room(one) } : rooms[at] ||= layout.room
      end
      private_constant :Ground
      # Where in its rooms: what is left of a plane and of a first try, by turns, parts of either, energies, noise, and the sum, by turns.
      LEFT, PARTS, LEFT_OF_TRY, PARTS_OF_TRY, ENERGY, NOISE, SUM = [0..1, 2..4, 5..6, 7..9, 10..11, 12, 13..14]
      private_constant :LEFT, :PARTS, :LEFT_OF_TRY, :PARTS_OF_TRY, :ENERGY, :NOISE, :SUM

      def ground(height, width, level, left, halved:)
        layout = Area::Bordered.new(width, height, BORDER)
        Ground.new(layout:, spots: layout.laid(@profile.spots(level)), left: each_once(left) { |one| layout.laid(one) }, halved:, rooms: [])
      end

      # Planes that are one are worked on once.
      def each_once(planes) = planes && planes.uniq(&:object_id).to_h { |plane| [plane.object_id, yield(plane)] }.then { |made| planes.map { |plane| made[plane.object_id] } }

      def flat(rows) = rows.reshape(rows.size)

      def means(plane) = @blocks.means(plane.reshape(@window.height, @window.width), @window)

      def cleaned(plane, try, index, strength)
        sum, rest, rest_of_try = parted(plane, try, 0...FINE, index, strength, @whole)
        coarse, coarse_try = means(rest), rest_of_try && means(rest_of_try)
        sum.inplace + rest
        (sum.inplace - @blocks.drawn(taken(coarse, coarse_try, index, strength), @window)).out_of_place!
      end

      # What noise has put into coarse detail.
      def taken(coarse, try, index, strength)
        plane = flat(coarse)
        sum, rest, = parted(plane, try && flat(try), FINE...Details::SCALES, index, strength, @half)
        (plane - sum - rest).reshape(*coarse.shape)
      end

      # The sum of what is kept of each part, and what is left of the plane and of the first try.
      def parted(plane, try, scales, index, strength, ground)
        row, other, sum = ground.layout.laid(plane), try && ground.layout.laid(try), ground.room(SUM).first.fill(0.0)
        scales.each do |scale|
          apart = ground.halved ? 2**(scale - 1) : 2**scale
          parts, row = Parts.of(row, ground.layout, apart, [*ground.room(PARTS), ground.room(LEFT)[scale % 2]], ways: WAYS[index])
          tries, other = Parts.of(other, ground.layout, apart, [*ground.room(PARTS_OF_TRY), ground.room(LEFT_OF_TRY)[scale % 2]], ways: WAYS[index]) if try
          sum = @sizes[scale].zero? ? parts.reduce(sum) { |made, part| (made.inplace + part).out_of_place! } : kept(sum, parts, tries, index, scale, strength, ground)
        end
        [sum, row, other].map { |one| one && ground.layout.taken(one) }
      end

      # A sum, and what is kept of each part.
      def kept(sum, parts, tries, index, scale, strength, ground)
        noise = noise(index, scale, strength, ground)
        parts.each_with_index.reduce(sum) do |made, (part, way)|
          white = SHARES[ground.halved][WAYS[index]][scale][way]
          share = tries ? again(white * AGAIN[index]) : first(white * MORE[index])
          more = Pointwise::Sweep.new(4) { |before, own, noisy, energy| [own * share.call(noisy, energy) + before] }
          free = ground.room(SUM).find { |room| !room.equal?(made) }
          more.call(made, part, noise, energy(tries ? tries[way] : part, scale, ground), into: [free]).first
        end
      end
      # Of white noise in each part, of what is left of two by two pixels and of single ones, by the way detail runs and together.
      SHARES = [false, true].to_h do |halved|
        sizes = halved ? FINE...Details::SCALES : 0...FINE
        [halved, [false, true].to_h { |ways| [ways, sizes.to_h { |scale| [scale, Parts.shares(scale, halved:, ways:)] }] }]
      end.freeze
      private_constant :SHARES

      # Of all pixels of a neighbourhood, were it white.
      def noise(index, scale, strength, ground)
        made = ground.room(NOISE).store(@profile.values(index, scale)[ground.spots].dup)
        made.inplace * (NEAR * (strength * @sizes[scale])**2 / Details::WHITE[scale])
        made.inplace * ground.left[index] if ground.left
        made.out_of_place!
      end

      def first(factor) = ->(noise, energy) { (noise / energy * -factor + 1.0).clip(0.0, nil) }

      def again(factor) = ->(noise, energy) { energy / (noise * factor + energy) }

      # @return [Numo::SFloat] that of each neighbourhood
      def energy(part, scale, ground)
        apart = [2**scale / (ground.halved ? 4 : 2), 1].max
        one, other = ground.room(ENERGY)
        SQUARE.call(part, into: [one])
        ground.layout.sum(one, apart * ground.layout.across, other)
        ground.layout.sum(other, apart * ground.layout.down, one)
      end
      SQUARE = Pointwise::Sweep.new(1) { |part| [part * part] }
      private_constant :SQUARE
    end
  end
end
