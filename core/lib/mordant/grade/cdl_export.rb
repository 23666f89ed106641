# frozen_string_literal: true

require "matrix"

module Mordant
  module Grade
    # A recipe as one CDL on log codes of the working space: exact where slope, offset,
    # power and saturation can say it, else the nearest one, with its error.
    #
    # Fit: least squares over colours along the tone axis and around it, by Gauss-Newton
    # steps with a damped diagonal (Levenberg 1944, Marquardt 1963), the derivatives as
    # differences.
    class CDLExport
      # Probes: tones, and how far colours stand off grey.
      COUNT = 600
      SPREAD = 0.12 # code
      ROUNDS = 40
      DIFFERENCE = 1e-5
      EXACT = 1e-5 # code: a hundredth of a 10-bit one
      START = [1.0] * 3 + [0.0] * 3 + [1.0] * 3 + [1.0]
      LOWEST = [0.0] * 3 + [-8.0] * 3 + [0.05] * 3 + [0.0]

      # worst and mean distance of a channel, in log codes of the working space
      Error = Struct.new(:worst, :mean, keyword_init: true)

      # @return [Colour::CDL]
      attr_reader :cdl

      # @return [Error]
      attr_reader :error

      # @param recipe [Recipe] what of it a look-up table can hold
      # @param id [String, nil] of the correction
      def initialize(recipe:, space: Colour::WorkingSpace.default, id: nil, description: nil)
        @space = space
        @probes = probes
        @wanted = Plan.new(recipe: recipe.within_luts, source: space.log, space:).chain.exact(@probes)
        values = fitted
        @cdl = made(values, id:, description:)
        off = (run(values) - @wanted).abs
        @error = Error.new(worst: off.max, mean: off.mean)
      end

      def exact? = error.worst < EXACT

      private

      def probes
        points = Bake.spread(COUNT)
        tone = points[0, true] * (@space.white - @space.black) + @space.black
        Numo::NArray.vstack([tone, tone + (points[1, true] - 0.5) * (2 * SPREAD), tone + (points[2, true] - 0.5) * (2 * SPREAD)])
      end

      def made(values, **about)
        slope, offset, power = values.first(9).each_slice(3).map { |row| row.map { |x| x.round(6) } }
        Colour::CDL.new(slope:, offset:, power:, saturation: values.last.round(6), **about)
      end

      def run(values)
        slope, offset, power = values.first(9).each_slice(3).to_a
        Pointwise::Chain.new(Colour::CDL.new(slope:, offset:, power:, saturation: values.last).operations(clamp: false)).exact(@probes)
      end

      def fitted
        values, damping = START, 1e-3
        best = squares(values)
        ROUNDS.times do
          step = direction(values, damping)
          tried = values.zip(step, LOWEST).map { |x, by, low| [x + by, low].max }
          found = squares(tried)
          if found < best
            settled = best - found < 1e-14
            values, best, damping = tried, found, damping / 4
            break if settled
          else
            damping *= 8
          end
        end
        values
      end

      def squares(values) = ((run(values) - @wanted)**2).sum

      # The step that the differences ask for.
      def direction(values, damping)
        here = run(values)
        residual = (@wanted - here).flatten
        columns = values.each_index.map do |i|
          moved = values.dup.tap { |list| list[i] += DIFFERENCE }
          ((run(moved) - here) / DIFFERENCE).flatten
        end
        normal = ::Matrix.build(columns.size) do |i, j|
          product = (columns[i] * columns[j]).sum
          (i == j) ? product * (1 + damping) + 1e-12 : product
        end
        normal.lup.solve(::Vector[*columns.map { |column| (column * residual).sum }]).to_a
      end
    end
  end
end
