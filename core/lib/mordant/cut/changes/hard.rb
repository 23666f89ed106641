# frozen_string_literal: true

module Mordant
  module Cut
    module Changes
      # Hard cuts: a step far larger than those around it, to a picture that is unlike the one before, and after
      # which nothing soon looks as before. The last leaves out flashes and strobes, the first fast movement.
      class Hard
        LEAST = 0.02 # of a step
        BEYOND = 1.7 # times the usual step on either side
        FLOOR = 0.008 # that a step is larger than that
        AROUND = 9 # frames that tell the usual step
        BACK = 8 # frames after which a flash is over
        RETURN = 0.5 # of the step, to a picture that counts as the same again
        ONWARD = 0.5 # of a step, that those beside it are then smaller than
        LEAST_AROUND = 4 # pictures
        ALIKE = 0.9 # correlation of pictures whose light alone has changed, or that have moved

        # @param pictures [Pictures]
        # @param pace [Float] frames for each picture
        def initialize(pictures, pace: 1.0)
          @pictures = pictures
          @sparse = pace > 1
          @around, @back = [AROUND, BACK].map { |frames| [(frames / pace).ceil, LEAST_AROUND].max }
        end

        # @return [Array<Integer>] first frames of new shots
        def frames = (1...@pictures.count).select { |frame| cut?(frame) }

        private

        def cut?(frame)
          step = @pictures.steps[frame]
          step >= LEAST && step > BEYOND * usual(frame) + FLOOR && !(@sparse && onward?(frame)) && !returns?(frame, step) && @pictures.alike(frame - 1, frame) < ALIKE
        end

        # The second largest step on the busier side: the largest may be another cut, and what is animated moves
        # at every second or third frame alone.
        def usual(frame)
          [(frame - @around)..(frame - 1), (frame + 1)..(frame + @around)].map { |side| side.select { |at| at.between?(1, @pictures.count - 1) }.map { |at| @pictures.steps[at] }.max(2)[1] || 0.0 }.max
        end

        # A dissolve goes on in the steps beside it, of which there are few where not all frames were decoded.
        def onward?(frame) = [frame - 1, frame + 1].any? { |at| at.between?(1, @pictures.count - 1) && @pictures.steps[at] > ONWARD * @pictures.steps[frame] }

        # Some picture before it looks as some picture after it.
        def returns?(frame, step)
          (1..@back).any? do |before|
            a = frame - before
            a >= 0 && (0...@back).any? { |after| before + after > 1 && before + after <= @back && frame + after < @pictures.count && @pictures.apart(a, frame + after) < RETURN * step }
          end
        end
      end
    end
  end
end
