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
      FRAMES = (3..12) # looked at: the fewest, and one more for each
      EVERY = 48 # frames of the stretch
      WIDTH = 240 # of them, at most
      HEIGHT = 135
      # Codes by which colours between the frames looked at may differ from theirs.
      MARGIN = 0.01
      LARGEST_ERROR = 0.5 # codes of the output
      HOPELESS = 16 * LARGEST_ERROR # twice the nodes make it a quarter or, at kinks, half

      # @param source [Programme::Source]
      # @param output [Grade::Output]
      # @param bits [Integer] of the output
      # @param first [Integer] source frame
      # @param count [Integer]
      # @param size [Integer, nil] nodes, where they are known to be enough
      # @raise [MediaError] of a source that cannot be looked at
      def initialize(source:, output:, bits:, first:, count:, size: nil)
        @source, @bits, @first, @count = source, bits, first, count
        @output = output
        if size
          @bake = baked(size)
        elsif Bulk.can?(source.plan)
          @bake, @error = nearest
        end
      end

      # The one place where it is decided what ffmpeg may render: pictures that stand still and are
      # made pixel by pixel, of codes that a lattice can be laid over.
      #
      # @param plan [Grade::Plan]
      def self.can?(plan) = !plan.recipe.moving? && plan.pointwise? && !Colour.encoding(plan.source).linear?

      # @return [Float, nil] worst difference, in codes of the output; nil where nothing can be baked
      attr_reader :error

      def fits? = !error.nil? && error < LARGEST_ERROR

      # @return [Integer] nodes of an edge
      def size = @bake.size

      # @param frame [Integer] of the source, the first one to draw
      # @param record [Integer] its number, by which its noise is chosen
      # @param rate [Rational] frames a second
      # @param width [Integer] pixels of the frames
      # @param height [Integer]
      # @param dither [Boolean]
      # @raise [SystemCallError] of a full disk
      # @yieldparam arguments [Array<String>] for ffmpeg, from input to graded 16-bit RGB frames
      def open(frame:, record:, rate:, width:, height:, dither:)
        Dir.mktmpdir("mordant") do |folder|
          path = File.join(folder, "grade.cube")
          File.write(path, Lut::Cube.write(@bake.table))
          input, scale = @source.reader.decoding(first: frame, width:, height:)
          graded = "[0:v:0]#{scale},format=gbrp16le,lut3d=file=#{path}:interp=tetrahedral"
          noise = NoisePicture.new(File.join(folder, "noise"), width:, height:, bits: @bits) if dither
          yield [*input, *noise&.input, "-filter_complex", noise ? noise.over(graded, record:, rate:) : "#{graded}[drawn]", "-map", "[drawn]", "-an"]
        end
      end

      private

      def baked(size) = Grade::Bake.new(plan: @source.plan, output: @output, size:)

      # The smallest lattice that is near enough, or the largest, with its error. Where one frame says that none will be, no others are looked at.
      def nearest
        bake = baked(SIZES.first)
        error = error_of(bake, colours(numbers.first(1)))
        return [bake, error] if error > HOPELESS

        probes = colours(numbers)
        SIZES.each do |size|
          bake = baked(size) unless size == SIZES.first
          error = error_of(bake, probes)
          return [bake, error] if error < LARGEST_ERROR || error > HOPELESS || size == SIZES.last
        end
      end

      def error_of(bake, probes) = bake.error(probes).worst * (2**@bits - 1)

      def looking(&) = Thread.new(&).tap { |thread| thread.report_on_exception = false }

      # At equal distances.
      def numbers
        most = (FRAMES.begin + @count / EVERY).clamp(FRAMES)
        Array.new(most) { |i| @first + i * (@count - 1) / [most - 1, 1].max }.uniq
      end

      # Codes of frames, each also moved to either side.
      def colours(numbers)
        frames = numbers.map { |number| looking { @source.reader.frame(number, width: WIDTH, height: HEIGHT) } }.map(&:value)
        all = Numo::NArray.hstack(frames.map { |frame| Numo::DFloat.cast(frame.rgb) / 65_535 })
        moves = Grade::Bake.spread(all.shape[1]) * (2 * MARGIN) - MARGIN
        Numo::NArray.hstack([all, (all + moves).clip(0.0, 1.0)])
      end
    end
  end
end
