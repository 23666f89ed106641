# frozen_string_literal: true

module Mordant
  module Noise
    # A profile of what is seen: of the blocks of each level those count that have least structure, and of them the finest detail that
    # runs both ways at once, of which pictures have least. Over levels it goes along a curve below what most levels say, as what a picture
    # adds is never less than nothing; how much coarser detail has is taken from the emptiest blocks of all.
    #
    # The curve is a polynomial of the second degree for the logarithm of the variance, of least asymmetric squares, levels counted the less the
    # more structure their blocks have.
    #
    # Source: W. Newey, J. Powell, Asymmetric least squares estimation and testing, Econometrica 55 (1987).
    class Estimate
      LEVELS = 12
      BLOCK = 8 # pixels
      EMPTY = 0.12 # share of a level's blocks that count
      FEWEST = 3 # blocks
      EMPTIEST = 0.06 # share of the blocks of all levels
      # Other sizes in whose structure blocks are told empty: where noise has little itself, it would be chosen for.
      BESIDE = [[1, 2, 3], [2, 3], [3], [2]].freeze
      ABOVE = 0.05 # how much what is above the curve counts, and what is below it the rest
      BENT = 0.1 # what bends the curve counts as much as this share of a level
      ROUNDS = 40
      # How much coarser detail of noise has at most of finer detail's variance within a frame, of luma and of colour, which is
      # often coarser; white noise has 0.051 and 0.2.
      FALL = [[nil, 0.12, 0.25, 0.3], [nil, 0.35, 0.4, 0.4], [nil, 0.35, 0.4, 0.4]].freeze
      # Large pictures are looked at in some places.
      LARGE, EDGE, PLACES = 700_000, 176, [6, 4] # pixels, pixels, across and down

      # @param raster [#width, #height]
      # @return [Array<Grade::Window>] where to look at a picture
      def self.windows(raster)
        return [Grade::Window.whole(raster.width, raster.height)] if raster.width * raster.height <= LARGE

        across, down = PLACES.zip([raster.width, raster.height]).map { |count, size| Array.new(count) { |at| ((size - EDGE) * at / (count - 1.0)).round } }
        down.product(across).map { |top, left| Grade::Window.new(left:, top:, width: EDGE, height: EDGE) }
      end

      # @param seen [Enumerable] of planes as Noise.turned and the Grade::Window they are of
      # @return [Profile]
      def self.profile(seen) = new(seen.map { |planes, window| blocks(planes, window) }.to_a.transpose.map { |parts| Numo::DFloat.hstack(parts) }).profile

      # @param values [Array<Float>] of each detail size, of what may be more than noise
      # @param plane [Integer]
      # @return [Array<Float>] what noise has of them at most
      def self.falling(values, plane) = values.zip(FALL[plane]).inject([]) { |made, (value, fall)| [*made, fall ? [value, made.last * fall].min : value] }

      # What blocks hold, of one each in a column: mean luma; the structure of luma that each detail size is seen beside; of each plane the
      # variance that runs both ways; and of each plane, one after the other, those of each detail size.
      #
      # @return [Array<Numo::DFloat>] [1, n], [sizes, n], [planes, n] and [planes * sizes, n]
      def self.blocks(planes, window)
        sizes = planes.map { |plane| Details.of(plane, window).first.map { |detail| means(detail * detail, window) } }
        structures = BESIDE.map { |beside| beside.map { |size| sizes[0][size] }.reduce(:+) }
        finest = planes.map { |plane| means(both_ways(plane, window)**2, window) }
        [[means(planes[0], window)], structures, finest, sizes.flatten(1)].map { |rows| Numo::DFloat.vstack(rows) }
      end

      def self.both_ways(plane, window)
        layout = Area::Bordered.new(window.width, window.height, 2)
        layout.taken(Parts.of(layout.laid(plane), layout, 1, Array.new(Parts::MOST + 1) { layout.room }, ways: true).first[1])
      end

      # Of whole blocks; of all there is where there is no whole one.
      def self.means(plane, window)
        edge = [BLOCK, window.width, window.height].min
        high, wide = window.height / edge, window.width / edge
        Numo::DFloat.cast(plane.reshape(window.height, window.width)[0...(high * edge), 0...(wide * edge)].dup.reshape(high, edge, wide, edge).mean(axis: 3).mean(axis: 1).reshape(high * wide))
      end
      private_class_method :blocks, :both_ways, :means

      # @param seen [Array<Numo::DFloat>] what blocks hold: their level, structures, finest detail and detail sizes
      def initialize(seen)
        level, @structures, @finest, @sizes = seen
        @level = level[0, true]
        rising = @level.sort_index.to_a
        @levels = rising.each_slice((rising.size / LEVELS.to_f).ceil).map { |some| least(@structures[0, some], EMPTY * some.size).then { |places| some.values_at(*places) } }
        @places = @levels.map { |some| @level[some].to_a.sum / some.size }
        structures = @levels.map { |some| middle(@structures[0, some]) }
        lowest = [structures.min, Profile::LEAST].max
        @weights = structures.map { |structure| lowest / [structure, lowest].max }
      end

      # @return [Profile]
      def profile
        places = Numo::DFloat.cast(@places)
        Profile.new(@places, PLANES.each_index.map do |plane|
          curve = curve(@levels.map { |some| Math.log([middle(@finest[plane, some]), Profile::LEAST].max) })
          noise = Numo::NMath.exp(curve.call(@level))
          shares = (0...Details::SCALES).map do |size|
            emptiest = least(@structures[size, true] / noise, EMPTIEST * @level.size)
            middle(@sizes[plane * Details::SCALES + size, emptiest] / noise[emptiest])
          end
          Estimate.falling(shares, plane).map { |share| (Numo::NMath.exp(curve.call(places)) * share).clip(Profile::LEAST, nil).to_a }
        end)
      end

      private

      # @param values [Numo::DFloat]
      # @param count [Float]
      # @return [Array<Integer>] where the least of them are
      def least(values, count) = values.sort_index[0...[count.ceil, FEWEST].max.clamp(..values.size)].to_a

      def middle(values) = values.sort[values.size / 2]

      # @param logs [Array<Float>] at places
      # @return [#call] levels, a Numo::DFloat, to logarithms
      def curve(logs)
        low, high = @places.minmax
        bases = ->(levels) { ((levels.clip(low, high) - low) / [high - low, 1e-6].max).then { |at| [at * 0.0 + 1.0, at, (at * 2.0 - 1.0)**2] } }
        rows = bases.call(Numo::DFloat.cast(@places)).map(&:to_a).transpose
        found = [0.0, 0.0, 0.0]
        ROUNDS.times do |round|
          weights = rows.each_index.map { |at| @weights[at] * ((round.positive? && logs[at] > Colour::Matrix3.dot(rows[at], found)) ? ABOVE : 1 - ABOVE) }
          found = solved(rows, logs, weights)
        end
        ->(levels) { bases.call(levels).zip(found).map { |base, amount| base * amount }.reduce(:+) }
      end

      # Weighted least squares; what cannot be told from few levels stays near 0.
      def solved(rows, values, weights)
        matrix = (0..2).map { |i| (0..2).map { |j| rows.each_index.sum { |at| weights[at] * rows[at][i] * rows[at][j] } + ((i == j) ? [1e-6, 1e-6, BENT][i] : 0.0) } }
        right = (0..2).map { |i| rows.each_index.sum { |at| weights[at] * rows[at][i] * values[at] } }
        Colour::Matrix3.apply(Colour::Matrix3.inverse(matrix), right)
      end
    end
  end
end
