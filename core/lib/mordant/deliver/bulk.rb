# frozen_string_literal: true

require "tmpdir"

module Mordant
  module Deliver
    # A stretch of one shot rendered by ffmpeg alone: decoded, drawn through the grade
    # baked to a lattice, encoded. It stands in for the exact pictures only where it
    # differs from them by less than half a code of the output, measured at the colours
    # of frames all through the stretch and a little beyond them.
    class Bulk
      SIZES = [33, 65].freeze # nodes; the first that is near enough is taken
      FRAMES = 8 # looked at
      WIDTH = 240 # of them, at most
      HEIGHT = 135
      # Codes by which colours between the frames looked at may differ from theirs.
      MARGIN = 0.01
      LARGEST_ERROR = 0.5 # codes of the output

      # @param source [Programme::Source]
      # @param output [Grade::Output]
      # @param bits [Integer] of the output
      # @param first [Integer] source frame
      # @param count [Integer]
      def initialize(source:, output:, bits:, first:, count:)
        @source, @bits, @first, @count = source, bits, first, count
        @output = output
        @bake, @error = nearest if source.moving.nil? && source.plan.pointwise? && !Colour.encoding(source.plan.source).linear?
      end

      # @return [Float, nil] worst difference, in codes of the output; nil where nothing can be baked
      attr_reader :error

      def fits? = !error.nil? && error < LARGEST_ERROR

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

      # The smallest lattice that is near enough, or the largest, with its error.
      def nearest
        probes = colours
        SIZES.each do |size|
          bake = Grade::Bake.new(plan: @source.plan, output: @output, size:)
          error = bake.error(probes).worst * (2**@bits - 1)
          return [bake, error] if error < LARGEST_ERROR || size == SIZES.last
        end
      end

      # Codes of frames at equal distances, each also moved to either side.
      def colours
        most = [FRAMES, @count].min
        numbers = Array.new(most) { |i| @first + i * (@count - 1) / [most - 1, 1].max }.uniq
        frames = numbers.map { |number| Thread.new { @source.reader.frame(number, width: WIDTH, height: HEIGHT) } }.map(&:value)
        all = Numo::NArray.hstack(frames.map { |frame| Numo::DFloat.cast(frame.rgb) / 65_535 })
        moves = Grade::Bake.spread(all.shape[1]) * (2 * MARGIN) - MARGIN
        Numo::NArray.hstack([all, (all + moves).clip(0.0, 1.0)])
      end
    end
  end
end
