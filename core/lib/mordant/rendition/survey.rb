# frozen_string_literal: true

require "tmpdir"

module Mordant
  module Rendition
    # Measures a shot's HDR picture from its first frame to its last.
    #
    # Where a grade stands still and acts on each pixel by itself, frames are drawn by ffmpeg through a lattice of it, at WIDTH x HEIGHT at most, to
    # know its darkest and brightest pixels. Else exact pictures are made, of half that raster. Either way there are TIMES of them a second, and FEWEST of a shot. Gauge makes the HDR picture of some pixels.
    class Survey
      WIDTH = 960
      HEIGHT = 540
      TIMES = 2
      FEWEST = 5
      NODES = 17
      LOOK = 4 # pictures from one in which bars are looked for to the next

      # @param source [Deliver::Programme::Source]
      # @param output [Grade::Output] to the HDR picture
      # @param place [Cut::Timeline::Shot]
      # @param width [Integer] of the project
      # @param height [Integer]
      # @param rate [Rational] frames a second
      # @param simple [Boolean] its frames come out of one file one after another, in codes that ffmpeg can draw
      def initialize(source:, output:, place:, width:, height:, rate:, simple:)
        @source, @place, @rate = source, place, rate
        scale = [1.0, WIDTH / width.to_f, HEIGHT / height.to_f].min
        @raster = [(width * scale).round, (height * scale).round]
        @drawn = simple && Deliver::Bulk.can?(source.plan)
        graded = output.chain + Grade::Screen.onward(output.view.encoding, "rec2100-pq")
        @gauge = Gauge.new(drawn? ? source.plan.chain + graded : graded, graded)
      end

      # @return [Boolean] ffmpeg draws the frames
      def drawn? = @drawn

      # @return [Integer] frames from one that is looked at to the next
      def every = [[@rate / TIMES, @place.length.fdiv(FEWEST)].min.round, 1].max

      # @return [Integer] pictures that are looked at
      def count = (@place.length / every.to_f).ceil

      # Begins again where there turns out to be picture that was taken for bars.
      #
      # @yieldparam done [Integer] pictures
      # @return [Statistics]
      # @raise [MediaError]
      def call(&)
        @looked, @active, @reach = false, nil, nil
        loop do
          @course = []
          break unless catch(:again) { drawn? ? drawn(&) : exact(&) } == AGAIN
        end
        Statistics.new(frames: @place.length, every:, course: @course, active: @active, reach: @reach)
      end
      AGAIN = :again
      private_constant :AGAIN

      private

      # @param frame [Integer] of the shot
      # @return [Frame] log codes of the working space
      def picture(frame)
        width, height = @raster.map { |edge| [edge / 2, 2].max }
        made = nil
        Media::Surrounded.each(@source.reader, wanted: [@place.shown_at(@place.record_in + frame)], frames: @place.clip_frames, window: @source.window(frame..frame), width:, height:) do |codes, around|
          made = @source.plan_at(frame).run(codes, around:)
        end
        made
      end

      def exact
        count.times do |at|
          found = picture(at * every)
          codes = Numo::UInt16.cast(found.rgb.clip(0.0, 1.0) * Gauge::CODES + 0.5)
          add(codes, codes, found.width, found.height, look: true)
          yield at + 1
        end
      end

      def drawn
        Dir.mktmpdir("mordant") do |folder|
          path = File.join(folder, "grade.cube")
          File.write(path, Lut::Cube.write(Grade::Bake.new(plan: @source.plan, output: AS_GRADED, size: NODES).table))
          @source.reader.each(first: @place.source_in, count:, every:, width: @raster[0], height: @raster[1], then_by: "format=gbrp16le,split[as][to];[to]lut3d=file=#{path}:interp=tetrahedral[graded];[as][graded]vstack", stacked: 2) do |codes|
            size = @raster.reduce(:*)
            add(codes.rgb[true, 0...size].dup, codes.rgb[true, size..].dup, *@raster, look: (@course.size % LOOK).zero?)
            yield @course.size
          end
        end
      end

      # An output that leaves log codes as they are.
      AS_GRADED = Struct.new(:chain).new(Pointwise::Chain.new([]))
      private_constant :AS_GRADED

      def add(planes, graded, width, height, look:)
        look_for_bars(graded, width, height) if look
        levels, reach = @gauge.read(planes, graded, width, height, @active)
        @course << levels.map { |light| light.round(4) }
        @reach = @reach ? @reach.to_h { |name, most| [name, most.zip(reach[name]).map(&:max)] } : reach
      end

      def look_for_bars(planes, width, height)
        found = @gauge.active(planes, width, height)
        active = @looked ? Gauge.joined(@active, found) : found
        again = @looked && active != @active
        @looked, @active = true, active
        throw :again, AGAIN if again
      end
    end
  end
end
