# frozen_string_literal: true

require "matrix"

module Mordant
  module Track
    # The part of a picture that is looked for in others, at one level of a pyramid: its pixels, how they
    # change when it is moved a little, and the steps that lead to where it lies in another.
    #
    # Source: Baker and Matthews 2004, "Lucas-Kanade 20 years on", the inverse compositional
    # algorithm, equations 30 to 38; residuals weigh as Tukey's biweight has it, and light may change by a factor
    # and an offset.
    class Template
      # What a motion consists of, by the name of it: how many numbers.
      KINDS = {"position" => 2, "similarity" => 4, "corners" => 8}.freeze
      MOST = 6000 # pixels
      ROUNDS = 30
      STILL = 0.004 # pixels; a step below it is the last
      NEAR = 0.05 # the same at coarser levels
      TUKEY = 4.685 # spreads from where on a pixel counts nothing
      LONGEST = 12.0 # times a step, that is taken at once
      SPREAD = 1500 # pixels, at least, of which the spread of all is told

      # @return [Array(Float, Float)] its middle, in pixels from the picture's
      attr_reader :centre

      Fit = Struct.new(:map, :likeness, :within, keyword_init: true)

      # @param pyramid [Pyramid]
      # @param level [Integer]
      # @param mask [Numo::SFloat] [height, width] of the first level: what counts, 0..1
      # @param kind [String] one of KINDS
      def initialize(pyramid, level, mask, kind)
        @level, @kind = level, kind
        @x, @y, @weights = places(pyramid, level, mask)
        @centre = [@x, @y].map { |axis| (axis * @weights).sum / @weights.sum }
        @radius = Math.sqrt((((@x - @centre[0])**2 + (@y - @centre[1])**2) * @weights).sum / @weights.sum).clamp(1.0, nil)
        @values, = pyramid.read(level, @x, @y)
        @slopes = slopes(pyramid)
      end

      # @return [Integer] pixels
      def size = @x.size

      # @return [Float] spread of its values; one without any cannot be found
      def spread = Math.sqrt(variance(@values, @weights))

      # @param pyramid [Pyramid] of another picture
      # @param map [Map] in pixels, from where to begin
      # @return [Fit] how it lies there; likeness is the correlation of values, within the share of it that is in
      #   the picture
      def fit(pyramid, map)
        stride = Stride.new unless @kind == "corners" # whose numbers do not go alike
        ROUNDS.times do
          values, within = seen(pyramid, map)
          weights = @weights * within
          break if weights.sum < 8

          residual = evened(values, weights) - @values
          counted = weights * trusted(residual, weights)
          numbers = step(residual, counted) or break
          step = motion(stride ? stride.taken(numbers) : numbers)
          map *= step.inverse
          break if moved(step) < (@level.zero? ? STILL : NEAR)
        end
        judged(pyramid, map)
      end

      # @return [Search] for about where it lies
      def search = @search ||= Search.new(@level, @x, @y, @values)

      # @return [Fit] of a place as it is
      def judged(pyramid, map)
        values, within = seen(pyramid, map)
        Fit.new(map:, likeness: likeness(values, @weights * within), within: (within * @weights).sum / @weights.sum)
      end

      private

      def places(pyramid, level, mask)
        edge = 2**level
        rows, columns = pyramid.plane(level).shape
        held = level.zero? ? mask : (1..level).reduce(mask) { |plane, _| Pyramid.reduced(plane, 2) }
        at = (held[0...rows, 0...columns].dup.reshape(rows * columns) > 0.25).where
        at = at[(0...at.size).step((at.size / MOST.to_f).ceil).to_a].dup if at.size > MOST
        at = Numo::Int64.cast(at)
        [Numo::SFloat.cast(at % columns), Numo::SFloat.cast(at / columns)].zip([pyramid.width, pyramid.height]).map { |place, size| (place + 0.5) * edge - size / 2.0 }
          .push(held[0...rows, 0...columns].dup.reshape(rows * columns)[at].dup)
      end

      # What the values change by as each number of the motion grows, in units of the part's radius.
      #
      # @return [Numo::SFloat] [numbers, n]
      def slopes(pyramid)
        near = 2**@level / 2.0
        u, v = (@x - @centre[0]) / @radius, (@y - @centre[1]) / @radius
        right, down = [[near, 0], [0, near]].map { |dx, dy| (pyramid.read(@level, @x + dx, @y + dy)[0] - pyramid.read(@level, @x - dx, @y - dy)[0]) * (@radius / (2 * near)) }
        case @kind
        when "position" then Numo::NArray.vstack([right, down])
        when "similarity" then Numo::NArray.vstack([right, down, right * u + down * v, down * u - right * v])
        else
          out = (right * u + down * v) * -1.0
          Numo::NArray.vstack([right * u, right * v, right, down * u, down * v, down, out * u, out * v])
        end
      end

      def seen(pyramid, map) = pyramid.read(@level, *map.call(@x, @y))

      # With the mean and the spread of its own values.
      def evened(values, weights)
        share = weights.sum
        middle, own = (values * weights).sum / share, (@values * weights).sum / share
        spread, wanted = variance(values, weights), variance(@values, weights)
        (values - middle) * Math.sqrt(wanted / [spread, 1e-12].max) + own
      end

      def variance(values, weights)
        share = weights.sum
        middle = (values * weights).sum / share
        (((values - middle)**2) * weights).sum / share
      end

      def trusted(residual, weights)
        counted = (weights > 0.25).where
        off = residual[counted[(0...counted.size).step([counted.size / SPREAD, 1].max).to_a]].abs
        scale = [off.sort[off.size / 2] * 1.4826, 1e-6].max
        (((residual / (TUKEY * scale))**2) * -1.0 + 1.0).clip(0.0, 1.0)**2
      end

      # Noise is in the slopes too, so that a step goes only a part of the way, and each later one a part of what is left: how large
      # a part, the last two say. Source: Barzilai and Borwein 1988, "Two-point step size gradient methods":
      # the last stride times itself over the last stride times what the step has changed by.
      class Stride
        def initialize
          @before, @times = nil, 1.0
        end

        # @param numbers [Array<Float>] of a step
        # @return [Array<Float>] of the one that is taken
        def taken(numbers)
          @times = times(numbers) if @before
          @before = numbers
          numbers.map { |number| number * @times }
        end

        private

        def times(numbers)
          size = @before.sum { |number| number * number }
          part = (1 - numbers.zip(@before).sum { |now, before| now * before } / size) / @times
          (part > 1 / LONGEST) ? [1 / part, 1.0].max : LONGEST
        end
      end
      private_constant :Stride

      # @return [Array<Float>, nil] numbers of a motion; nil where nothing holds it
      def step(residual, weights)
        weighed = @slopes * weights.reshape(1, weights.size)
        left = weighed.dot(@slopes.transpose).to_a
        right = (weighed * residual.reshape(1, residual.size)).sum(axis: 1).to_a
        solved(left, right)
      end

      # @return [Map]
      def motion(numbers)
        map = case @kind
        when "position" then Map.new([1, 0, numbers[0], 0, 1, numbers[1], 0, 0, 1.0])
        when "similarity" then Map.new([1 + numbers[2], -numbers[3], numbers[0], numbers[3], 1 + numbers[2], numbers[1], 0, 0, 1.0])
        else Map.new([1 + numbers[0], numbers[1], numbers[2], numbers[3], 1 + numbers[4], numbers[5], numbers[6], numbers[7], 1.0])
        end
        about = Map.new([1 / @radius, 0, -@centre[0] / @radius, 0, 1 / @radius, -@centre[1] / @radius, 0, 0, 1.0])
        about.inverse * map * about
      end

      RIDGE = 1e-6 # of the mean of the diagonal, added to all of it, so that something flat along one way stays there
      private_constant :RIDGE

      def solved(left, right)
        ridge = left.each_index.sum { |index| left[index][index] } / left.size * RIDGE
        return unless ridge.positive? && ridge.finite?

        (Matrix.rows(left) + Matrix.identity(left.size) * ridge).lup.solve(Vector.elements(right)).to_a
      end

      # Pixels that the corners of the part go.
      def moved(step)
        [[-1, -1], [1, -1], [1, 1], [-1, 1]].map do |u, v|
          x, y = @centre[0] + u * @radius, @centre[1] + v * @radius
          step.call(x, y).then { |px, py| Math.hypot(px - x, py - y) }
        end.max
      end

      def likeness(values, weights)
        share = weights.sum
        return 0.0 if share < 8

        a, b = [values, @values].map { |one| one - (one * weights).sum / share }
        spread = Math.sqrt((a * a * weights).sum * (b * b * weights).sum)
        spread.positive? ? (a * b * weights).sum / spread : 0.0
      end
    end
  end
end
