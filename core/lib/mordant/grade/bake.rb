# frozen_string_literal: true

module Mordant
  module Grade
    # A plan and its output as one look-up table, and how far that is from them.
    #
    # The lattice stands on the source's code values, 0..1 or the part of them that
    # is needed. A linear source is brought to log codes by a shaper first, as a
    # lattice at equal distances of light would have hardly a node in the shadows.
    class Bake
      SIZES = [17, 33, 65].freeze
      # Light a shaper covers, and its entries.
      SHAPER_DOMAIN = [0.0, 16.0].freeze
      SHAPER_SIZE = 65_536
      # Points off the lattice on which the error is measured.
      PROBES = 20_000

      # Worst and mean distance of a channel from exact, in code values of the view.
      Error = Struct.new(:worst, :mean, keyword_init: true)

      attr_reader :size

      # @param plan [Plan]
      # @param output [Output]
      # @param size [Integer] nodes on an edge
      # @param domain [Array<Array<Float>>] lowest and highest red, green, blue code held
      # @raise [ParameterError] of a size out of Lut::Lattice::SIZES
      def initialize(plan:, output:, size: 33, domain: Lut::Lattice::WHOLE)
        unless Lut::Lattice::SIZES.cover?(size)
          raise ParameterError.new(path: "size", expected: "nodes in #{Lut::Lattice::SIZES}, commonly #{SIZES.join(", ")}", found: size)
        end
        @plan, @output, @size, @domain = plan, output, size, domain
        @source = Colour.encoding(plan.source)
      end

      # @return [Boolean] a shaper stands before the lattice
      def shaped? = @source.linear?

      # @return [Lut::Table]
      def table(title: nil)
        Lut::Table.new(title:, shaper:, lattice:)
      end

      # @return [Lut::ProcessList] the same, for CLF files
      # @param input [String] what goes in, in words
      # @param result [String] what comes out
      def process_list(id:, title:, input:, result:)
        low, high = SHAPER_DOMAIN
        curves = shaper
        nodes = curves ? [Lut::Clf::Range.new(low: [low, 0.0], high: [high, 1.0]), Lut::Clf::Lut1d.new(curves.data)] : []
        Lut::ProcessList.new(id:, name: title, input:, output: result, nodes: [*nodes, Lut::Clf::Lut3d.new(lattice)])
      end

      # @return [Lut::Lattice] over the shaped codes
      def lattice
        @lattice ||= Lut::Lattice.new(Numo::DFloat.cast(samples).transpose.dup, size:, domain: @domain)
      end

      # What the nodes become, in the order of Lut::Lattice.
      #
      # @return [Numo::SFloat] [3, size^3] in the view's encoding
      def samples = @samples ||= @output.chain.call(@plan.tail.call(entered))

      # @param probes [Numo::DFloat, nil] [3, n] codes to measure at; without them, points
      #   spread evenly over the cube that are no nodes
      # @return [Error]
      def error(probes = nil)
        probes ||= within(Bake.spread(PROBES))
        baked = Pointwise::Chain.new([lattice]).exact(probes)
        off = (baked - exact(unshaped(probes))).abs
        Error.new(worst: off.max, mean: off.mean)
      end

      # Points of the additive recurrence with the plastic constant's powers.
      # Source: Roberts 2018, "The unreasonable effectiveness of quasirandom sequences".
      #
      # @return [Numo::DFloat] [3, count] within 0..1
      def self.spread(count)
        constant = 1.2207440846057596 # real root of x^4 = x + 1
        index = Numo::DFloat.new(count).seq + 1
        Numo::NArray.vstack((1..3).map { |power| (index * constant**-power + 0.5) % 1.0 })
      end

      KEPT = 4 # sets of nodes

      private

      # The nodes before the first step; a hand that drags asks for the same again and
      # again.
      def entered
        kept = (Bake.kept ||= {})
        key = [@plan.head_key, size, @domain]
        found = kept.delete(key) || @plan.head.call(Numo::SFloat.cast(unshaped(within(Lut::Lattice.nodes(size)))))
        kept[key] = found
        kept.shift while kept.size > KEPT
        found
      end

      class << self
        attr_accessor :kept
      end

      # Shares of the domain as the values they stand for.
      def within(shares)
        return shares if @domain == Lut::Lattice::WHOLE

        low, high = @domain
        Numo::NArray.vstack(Array.new(3) { |channel| shares[channel, true] * (high[channel] - low[channel]) + low[channel] })
      end

      def exact(codes)
        @output.chain.call(@plan.chain.call(Numo::SFloat.cast(codes)))
      end

      def shaper
        return unless shaped?

        low, high = SHAPER_DOMAIN
        light = Numo::DFloat.new(SHAPER_SIZE).seq * ((high - low) / (SHAPER_SIZE - 1)) + low
        codes = (Colour::Transfer::Acescct.encode(light) - codes_at(low)) / (codes_at(high) - codes_at(low))
        Lut::Curve1d.new(Numo::NArray.vstack([codes] * 3).transpose.dup, domain: SHAPER_DOMAIN.map { |x| [x] * 3 })
      end

      # From the lattice's own axis back to source codes.
      def unshaped(axis)
        return axis unless shaped?

        low, high = SHAPER_DOMAIN.map { |light| codes_at(light) }
        Colour::Transfer::Acescct.decode(axis * (high - low) + low)
      end

      def codes_at(light) = Colour::Transfer::Acescct.encode(Numo::DFloat[light])[0]
    end
  end
end
