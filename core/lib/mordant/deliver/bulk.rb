# frozen_string_literal: true

require "tmpdir"

module Mordant
  module Deliver
    # A stretch of one shot rendered by ffmpeg alone: decoded, drawn through the grade
    # baked to a lattice, encoded. It stands in for the exact pictures only where it
    # differs from them by less than half a code of the output, measured at the colours
    # of frames all through the stretch and a little beyond them.
    class Bulk
      SIZE = 65 # nodes
      FRAMES = 8 # looked at
      WIDTH = 240 # of them, at most
      HEIGHT = 135
      # Codes by which colours between the frames looked at may differ from theirs.
      MARGIN = 0.01

      # @param source [Programme::Source]
      # @param output [Grade::Output]
      # @param bits [Integer] of the output
      # @param first [Integer] source frame
      # @param count [Integer]
      def initialize(source:, output:, bits:, first:, count:)
        @source, @bits, @first, @count = source, bits, first, count
        plan = source.plan
        @bake = Grade::Bake.new(plan:, output:, size: SIZE) if plan.pointwise? && !Colour.encoding(plan.source).linear?
      end

      # @return [Float] worst difference, in codes of the output
      def error
        @error ||= @bake.error(colours).worst * (2**@bits - 1)
      end

      def fits? = !@bake.nil? && error < 0.5

      # @yieldparam input [Array<String>] arguments for ffmpeg, up to its input
      # @yieldparam filters [String] from decoded frames to 16-bit graded RGB
      def open(width:, height:)
        Dir.mktmpdir("mordant") do |folder|
          path = File.join(folder, "grade.cube")
          File.write(path, Lut::Cube.write(@bake.table))
          input, scale = @source.reader.decoding(first: @first, width:, height:)
          yield input, "#{scale},format=gbrp16le,lut3d=file=#{path}:interp=tetrahedral"
        end
      end

      private

      # Codes of frames at equal distances, each also moved to either side.
      def colours
        numbers = Array.new([FRAMES, @count].min) { |i| @first + i * (@count - 1) / [[FRAMES, @count].min - 1, 1].max }
        seen = numbers.uniq.map { |number| Numo::DFloat.cast(@source.reader.frame(number, width: WIDTH, height: HEIGHT).rgb) / 65_535 }
        all = Numo::NArray.hstack(seen)
        moves = Grade::Bake.spread(all.shape[1]) * (2 * MARGIN) - MARGIN
        Numo::NArray.hstack([all, (all + moves).clip(0.0, 1.0)])
      end
    end
  end
end
