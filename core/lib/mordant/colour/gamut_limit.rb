# frozen_string_literal: true

module Mordant
  module Colour
    # Display light held within the gamut of smaller primaries, for a container that
    # has larger ones: colours near the edge and beyond are brought inside rather than
    # cut off, so that they keep their differences.
    class GamutLimit
      # Gamuts a view can be limited to.
      ALL = {"bt709" => Primaries::REC709, "p3-d65" => Primaries::P3_D65, "bt2020" => Primaries::REC2020}.freeze
      # Colours nearer to grey than this share of the way to the edge do not move.
      THRESHOLD = 0.9
      POWER = 1.2
      # The largest gamut light comes in, and points looked at on each of its edges.
      WIDEST = Primaries::AP1
      EDGE = 24
      LEAST = 1.01 # that is brought in

      class << self
        # @raise [ParameterError]
        def fetch(id)
          @kept ||= {}
          @kept[id] ||= new(ALL.fetch(id) { raise ParameterError.new(path: "limit", expected: ALL.keys.join(", "), found: id) })
        end

        # How far a gamut reaches beyond another one.
        #
        # @param primaries [Primaries]
        # @param widest [Primaries]
        # @return [Array<Float>] by channel, in shares of the way from grey to the edge
        def reach(primaries, widest: WIDEST)
          matrix = widest.to(primaries)
          hull.map { |rgb| Matrix3.apply(matrix, rgb) }.map { |rgb| rgb.map { |x| (rgb.max - x) / rgb.max } }.transpose.map(&:max)
        end

        private

        def hull
          corners = [[1.0, 0.0, 0.0], [0.0, 1.0, 0.0], [0.0, 0.0, 1.0]]
          corners.zip(corners.rotate).flat_map do |from, to|
            (0...EDGE).map { |i| from.zip(to).map { |a, b| a + (b - a) * i / EDGE } }
          end
        end
      end

      # @param primaries [Primaries] under D65
      def initialize(primaries)
        @primaries = primaries
        @compression = GamutCompression.new(limit: GamutLimit.reach(primaries).map { |distance| [distance, LEAST].max }, threshold: [THRESHOLD] * 3, power: POWER)
        freeze
      end

      # @return [Array] operations from XYZ D65 to XYZ D65
      def operations
        [Pointwise::Matrix.new(@primaries.from_xyz), @compression, Pointwise::Clamp.new(0.0, nil), Pointwise::Matrix.new(@primaries.to_xyz)]
      end
    end
  end
end
