# frozen_string_literal: true

module Mordant
  module Cut
    module Changes
      # Hard cuts: a step far larger than those around it, to a picture that is unlike the one before.
      class Hard
        LEAST = 0.02 # of a step
        BEYOND = 1.7 # times the usual step on either side
        FLOOR = 0.008 # that a step is larger than that
        AROUND = 9 # frames that tell the usual step
        ONWARD = 0.5 # of a step, that those beside it are then smaller than
        LEAST_AROUND = 4 # pictures
        ALIKE = 0.8 # correlation of pictures of one shot, whose light has changed or in which something moved
        MOVED = 0.9 # of one that has moved as a whole
        KEPT = 0.5 # correlation of detail of pictures of one shot, that has moved a little or been lit at once
        FAR = 0.15 # of a step, which no light makes of a shot
        UNLIKE = 0.75 # of those that have not, where all around them moves

        # @param pictures [Pictures]
        def initialize(pictures)
          @pictures, @steps = pictures, pictures.fine.steps
          pace = (pictures.times.last + 1).fdiv(pictures.count) # frames for each picture
          @sparse = pace > 1
          @around = [(AROUND / pace).ceil, LEAST_AROUND].max
        end

        # @return [Array<Integer>] pictures that are the first of new shots
        def frames = (1...@pictures.count).select { |frame| cut?(frame) }

        private

        def cut?(frame)
          step = @steps[frame]
          return false if step < LEAST || (@sparse && onward?(frame))

          larger = [(frame - @around)..(frame - 1), (frame + 1)..(frame + @around)].map { |side| side.select { |at| within?(at) && BEYOND * @steps[at] + FLOOR >= step } }
          return unlike?(frame, ALIKE) || far?(frame) if larger.sum(&:size) < 2

          unlike?(frame, UNLIKE) && larger.all? { |side| side.count { |at| !moves?(at) } < 2 }
        end

        def unlike?(frame, alike) = @pictures.kept(frame - 1, frame) < KEPT && @pictures.alike(frame - 1, frame) < alike

        # Soft pictures are alike by their luma, whatever their colours.
        def far?(frame) = @steps[frame] > FAR && @pictures.kept(frame - 1, frame) < KEPT

        # The picture goes aside as a whole.
        def moves?(frame)
          alike, way = @pictures.moved(frame - 1, frame)
          alike >= MOVED && way.any?(&:nonzero?)
        end

        def within?(at) = at.between?(1, @pictures.count - 1)

        # A dissolve goes on in the steps beside it, of which there are few where not all frames were decoded.
        def onward?(frame) = [frame - 1, frame + 1].any? { |at| within?(at) && @steps[at] > ONWARD * @steps[frame] && !moves?(at) }
      end
    end
  end
end
