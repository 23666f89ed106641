# frozen_string_literal: true

module Mordant
  module Grade
    # A plan and its output as a lattice so fine, over the codes that occur in a shot, that most colours come out as near as
    # can be wished for; and which of its cells do not, at bends of the rendering. Colours in those, and in cells that
    # nothing was known of, are left to the plan itself.
    class FineBake
      NEAR = 0.35 # codes of the output that the lattice may be off, wherever a cell is tried
      SHARP = 1.0 # codes; a bend at which it is further off may reach into the cells beside, where none of the places tried is
      TRIED = [[0.5] * 3, *[0.1, 0.9].repeated_permutation(3), *[0.15, 0.5, 0.85].permutation].map(&:freeze).freeze # shares of the way through a cell: its middle, near its corners, and a place in each of the tetrahedra
      BEYOND = 8 # 10-bit codes of the source around those that were seen; black and white, too, are to lie within
      AT_ONCE = 1 << 18 # cells tried
      private_constant :BEYOND, :AT_ONCE

      # @return [Float] of the colours that were looked at, the share that is left to the plan
      attr_reader :left

      # @return [Integer] largest code of the output
      attr_reader :largest

      # @return [String] encoding of the output
      attr_reader :encoding

      # @param plan [Plan] pointwise
      # @param output [Output] pointwise
      # @param bits [Integer] of the output's codes
      # @param seen [Array<Numo::UInt16>] [3, n] source codes, of some frames
      # @raise [ParameterError] of a plan that is not pointwise
      def initialize(plan:, output:, bits:, seen:)
        @plan, @output, @encoding, @largest = plan.chain, output.chain, output.view.encoding, 2**bits - 1
        @cells = Lut::Cells.new(box(seen))
        @nodes = Array.new(3) { Numo::UInt16.zeros(Lut::Cells::COUNT) } # red, green, blue
        @unsure = Numo::Bit.ones(Lut::Cells::COUNT)
        known = @cells.inner(Lut::Cells.once(seen.map { |codes| @cells.of(codes) }))
        bake(@cells.nodes(known)) unless known.empty?
        sharp = (0...known.size).step(AT_ONCE).map { |first| try(known[first...[first + AT_ONCE, known.size].min].dup) }
        sharp.each { |cells| Lut::Cells::BESIDE.each { |step| @unsure[cells + step] = 1 } unless cells.empty? }
        @left = seen.sum { |codes| unsure(codes).size }.fdiv(seen.sum { |codes| codes.shape[1] })
      end

      # @param codes [Numo::UInt16] [3, n] of the source
      # @return [Numo::SFloat] [3, n] codes of the output, as the plan itself makes them
      def exact(codes) = codes.empty? ? Numo::SFloat.zeros(3, 0) : @output.call(@plan.from_codes(codes))

      # @param codes [Numo::UInt16] [3, n] of the source
      # @return [Numo::Int32] places of those that the lattice is not known to be near enough of
      def unsure(codes)
        found = []
        Pointwise.each_tile(codes.shape[1]) do |range|
          cells = @cells.of(codes[true, range])
          places = @unsure[cells].where
          found << places + range.begin unless places.empty?
          cells.free
        end
        found.empty? ? Numo::Int32.zeros(0) : Numo::NArray.hstack(found)
      end

      # Leaves the cells of some colours to the plan from now on.
      #
      # @param codes [Numo::UInt16] [3, n] of the source
      def doubt(codes)
        @unsure[@cells.of(codes)] = 1 unless codes.empty?
      end

      # @param path [String] of a file to write the lattice to
      # @return [String] filters for ffmpeg through it, from 16-bit planes of source codes to those of the output
      # @raise [SystemCallError] of a full disk
      def filters(path)
        Media::Hald.write(path, @nodes)
        stretched = @cells.stretch.zip(%w[r g b]).map { |(low, by), name| "#{name}='clip((val-(#{low}))*#{by}+0.5,0,65535)'" }.join(":")
        Media::Hald.filters(path, level: Lut::Cells::LEVEL, prior: "lutrgb=#{stretched}")
      end

      private

      def box(seen)
        around = (BEYOND * 65_535.0 / 1023).round
        lows, highs = seen.map { |codes| codes.min(axis: 1).to_a }.transpose, seen.map { |codes| codes.max(axis: 1).to_a }.transpose
        [lows.map { |all| all.min - around }, highs.map { |all| all.max + around }]
      end

      def made(colours) = @output.call(@plan.call(colours))

      def bake(nodes)
        values = (made(@cells.colours(nodes)) * 65_535.0).round.clip(0, 65_535)
        @nodes.each_with_index { |table, channel| table[nodes] = Numo::UInt16.cast(values[channel, true]) }
      end

      # What the codes of the output cannot say is not near, as it is to be counted.
      #
      # @return [Numo::Int32] cells with a sharp bend
      def try(cells)
        off = Numo::SFloat.zeros(cells.size)
        TRIED.each do |share|
          weights, exact = Lut::Cells.weights(share), made(@cells.colours(cells, share))
          @nodes.each_with_index do |table, channel|
            baked = weights.map { |step, weight| Numo::SFloat.cast(table[cells + step]) * (weight * @largest / 65_535) }.reduce(:+)
            off = Numo::SFloat.maximum(off, (baked - exact[channel, true] * @largest).abs, nan: true)
          end
        end
        near = cells[(off <= NEAR).where]
        @unsure[near] = 0 unless near.empty?
        cells[(off > SHARP).where].dup
      end
    end
  end
end
