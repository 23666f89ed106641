# frozen_string_literal: true

module Mordant
  module Scopes
    # The colours of a picture as points in space: every cell of the codes' cube that
    # occurs, with how often, so that no small patch is lost among large ones.
    #
    # A space turns red, green and blue codes into three coordinates about -1..1, the
    # third upwards.
    class Solid
      BITS = 5 # of a code that name its cell
      EDGE = 2**BITS # cells on an edge of the cube

      SPACES = {
        "codes" => "red, green and blue codes",
        "difference" => "colour differences about luma",
        "lab" => "CIE L*a*b* of the display's light"
      }.freeze
      # What the three coordinates are, in order.
      AXES = {"codes" => %w[red green blue], "difference" => ["blue difference", "red difference", "luma"], "lab" => %w[a* b* L*]}.freeze
      # L*a*b* chroma that stands at 1.
      CHROMA = 128.0

      # Of red, green and blue, pixels in each cell: [EDGE**3], red counts fastest.
      CELLS = Pointwise::Counted.new(3, EDGE**3) do |*planes|
        [[planes.reverse.map { |plane| Pointwise.whole(Pointwise.held(Signal.level(plane), 0.0) * (1.0 / 2**(10 - BITS)), EDGE - 1) }.reduce { |sum, bin| sum * EDGE + bin }]]
      end

      # @param signal [Signal]
      # @param space [String] a key of SPACES
      # @param limit [Colour::Primaries, nil] a gamut within the signal's own
      # @raise [ParameterError]
      def initialize(signal, space:, limit: nil)
        raise ParameterError.new(path: "space", expected: SPACES.keys.join(", "), found: space) unless SPACES.key?(space)

        @signal, @space, @limit = signal, space, limit
        counts = signal.cells
        @occupied = counts.ne(0).where
        @counts = counts[@occupied].dup
      end

      # @return [Integer] cells that occur
      def size = @occupied.size

      # @return [Numo::SFloat] [size, 3]
      def points = place(codes).transpose.dup

      # @return [Numo::UInt8] [size, 4]: the cell's colour, and how often it occurs
      def colours
        rgb = Numo::UInt8.cast(codes * 255 + 0.5)
        density = Density.brightness(@counts, typical: [@signal.size / 2000.0, 1.0].max)
        Numo::NArray.vstack([rgb, density.reshape(1, size)]).transpose.dup
      end

      # Pixels whose code stands at an end, by face of the cube.
      #
      # @return [Hash{String => Integer}]
      def flattened
        %i[red green blue].flat_map do |channel|
          counts = @signal.counts(channel)
          [["#{channel} at black", counts[0]], ["#{channel} at white", counts[-1]]]
        end.to_h
      end

      # The bounds of the codes in the space, which are the target's gamut: the twelve edges of
      # their cube; and after them those of a gamut it is held to.
      #
      # @return [Array<Array<Array<Float>>>] edges, each a line of points
      def bounds
        made = edges.map { |line| place(line) }
        made += edges.map { |line| place(limited(line)) } if @limit
        made.map { |line| line.transpose.to_a.map { |point| point.map { |x| x.round(4) } } }
      end

      # What of all codes a signal of legal range may use, 64..940 of 1023: where a picture must
      # lie whose codes are to be taken for legal ones as they are.
      #
      # @return [Array<Array<Array<Float>>>] as #bounds
      def legal
        edges.map { |line| place(line * Colour::SignalRange::SPAN + Colour::SignalRange::LOWEST).transpose.to_a.map { |point| point.map { |x| x.round(4) } } }
      end

      # @return [Array<String>]
      def axes = AXES.fetch(@space)

      STEPS = 8 # of an edge

      private

      # @return [Array<Numo::DFloat>] [3, STEPS + 1] codes along each edge of the cube
      def edges
        corners = (0...8).map { |bits| [bits & 1, bits >> 1 & 1, bits >> 2 & 1] }
        edges = corners.combination(2).select { |a, b| a.zip(b).count { |x, y| x != y } == 1 }
        edges.map do |a, b|
          steps = Numo::DFloat.new(STEPS + 1).seq / STEPS
          Numo::NArray.vstack(a.zip(b).map { |from, to| steps * (to - from) + from })
        end
      end

      # Codes of the limit's own cube as the signal codes them.
      def limited(codes)
        encoding = Colour.encoding(@signal.encoding)
        light = encoding.transfer.decode(codes)
        Pointwise::Chain.new([Pointwise::Matrix.new(@limit.to_xyz), *encoding.encoding]).exact(light)
      end

      # The middles of the occupied cells.
      def codes
        @codes ||= Numo::NArray.vstack([1, EDGE, EDGE * EDGE].map { |stride| (Numo::DFloat.cast(@occupied / stride % EDGE) + 0.5) / EDGE })
      end

      def place(codes)
        case @space
        when "codes" then Numo::SFloat.cast(codes * 2 - 1)
        when "difference" then difference(codes)
        else lab(codes)
        end
      end

      def difference(codes)
        weights = @signal.weights
        luma = Array.new(3) { |channel| codes[channel, true] * weights[channel] }.reduce(:+)
        cb, cr = [[2, weights[2]], [0, weights[0]]].map { |channel, weight| (codes[channel, true] - luma) / (1 - weight) }
        Numo::SFloat.cast(Numo::NArray.vstack([cb, cr, luma * 2 - 1]))
      end

      def lab(codes)
        encoding = Colour.encoding(@signal.encoding)
        xyz = Pointwise::Chain.new(encoding.decoding).exact(Numo::DFloat.cast(codes))
        lightness, a, b = Array.new(3) { |row| Colour::Difference.lab(xyz)[row, true] }
        Numo::SFloat.cast(Numo::NArray.vstack([a / CHROMA, b / CHROMA, lightness / 50 - 1]))
      end
    end
  end
end
