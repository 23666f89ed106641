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
      def self.profile(seen) = new(seen.flat_map { |planes, window| blocks(planes, window) }.to_a).profile

      # @param values [Array<Float>] of each detail size, of what may be more than noise
      # @param plane [Integer]
      # @return [Array<Float>] what noise has of them at most
      def self.falling(values, plane) = values.zip(FALL[plane]).inject([]) { |made, (value, fall)| [*made, fall ? [value, made.last * fall].min : value] }

      # What a block holds: mean luma, the structure of luma that each detail size is seen beside, and of each plane the variance that runs
      # both ways and of each detail size.
      Block = Struct.new(:level, :structures, :finest, :sizes) do
        def structure = structures[0]
      end
      private_constant :Block

      def self.blocks(planes, window)
        details = planes.map { |plane| Details.of(plane, window).first.map { |detail| detail * detail } }
        level = means(planes[0], window)
        finest = planes.map { |plane| means(both_ways(plane, window)**2, window) }
        sizes = details.map { |some| some.map { |square| means(square, window) } }
        level.each_index.map do |at|
          luma, *others = sizes.map { |some| some.map { |one| one[at] } }
          Block.new(level[at], BESIDE.map { |beside| beside.sum { |size| luma[size] } }, finest.map { |one| one[at] }, [luma, *others])
        end
      end

      def self.both_ways(plane, window)
        layout = Area::Bordered.new(window.width, window.height, 2)
        layout.taken(Parts.of(layout.laid(plane), layout, 1, Array.new(Parts::MOST + 1) { layout.room }, ways: true).first[1])
      end

      # Of whole blocks; of all there is where there is no whole one.
      def self.means(plane, window)
        edge = [BLOCK, window.width, window.height].min
        high, wide = window.height / edge, window.width / edge
        plane.reshape(window.height, window.width)[0...(high * edge), 0...(wide * edge)].dup.reshape(high, edge, wide, edge).mean(axis: 3).mean(axis: 1).reshape(high * wide).to_a
      end
      private_class_method :blocks, :both_ways, :means

      def initialize(blocks)
        @blocks = blocks
        sorted = blocks.sort_by(&:level)
        @levels = sorted.each_slice((sorted.size / LEVELS.to_f).ceil).map { |some| some.min_by([(some.size * EMPTY).ceil, FEWEST].max, &:structure) }
        @places = @levels.map { |some| some.sum(&:level) / some.size }
        structures = @levels.map { |some| middle(some.map(&:structure)) }
        least = [structures.min, Profile::LEAST].max
        @weights = structures.map { |structure| least / [structure, least].max }
      end

      # @return [Profile]
      def profile
        Profile.new(@places, PLANES.each_index.map do |plane|
          curve = curve(@levels.map { |some| Math.log([middle(some.map { |block| block.finest[plane] }), Profile::LEAST].max) })
          shares = (0...Details::SCALES).map { |size| middle(emptiest(size, curve).map { |block| block.sizes[plane][size] / Math.exp(curve.call(block.level)) }) }
          Estimate.falling(shares, plane).map { |share| @places.map { |level| [Math.exp(curve.call(level)) * share, Profile::LEAST].max } }
        end)
      end

      private

      # Relative to the noise of their level.
      def emptiest(size, curve) = @blocks.min_by([(@blocks.size * EMPTIEST).ceil, FEWEST].max) { |block| block.structures[size] / Math.exp(curve.call(block.level)) }

      def middle(values) = values.sort[values.size / 2]

      # @param logs [Array<Float>] at places
      # @return [#call] level to logarithm
      def curve(logs)
        low, high = @places.minmax
        bases = ->(level) { ((level.clamp(low, high) - low) / [high - low, 1e-6].max).then { |at| [1.0, at, (2 * at - 1)**2] } }
        rows = @places.map(&bases)
        found = [0.0, 0.0, 0.0]
        ROUNDS.times do |round|
          weights = rows.each_index.map { |at| @weights[at] * ((round.positive? && logs[at] > Colour::Matrix3.dot(rows[at], found)) ? ABOVE : 1 - ABOVE) }
          found = solved(rows, logs, weights)
        end
        ->(level) { Colour::Matrix3.dot(bases.call(level), found) }
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
