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
        ALIKE = 0.9 # correlation of pictures whose light alone has changed, or that have moved

        # @param pictures [Pictures]
        def initialize(pictures)
          @pictures = pictures
        end

        # @return [Array<Integer>] first frames of new shots
        def frames = (1...@pictures.count).select { |frame| cut?(frame) }

        private

        def cut?(frame)
          step = @pictures.steps[frame]
          step >= LEAST && step > BEYOND * usual(frame) + FLOOR && !returns?(frame, step) && @pictures.alike(frame - 1, frame) < ALIKE
        end

        # The second largest step on the busier side: the largest may be another cut, and what is animated moves
        # at every second or third frame alone.
        def usual(frame)
          [(frame - AROUND)..(frame - 1), (frame + 1)..(frame + AROUND)].map { |side| side.select { |at| at.between?(1, @pictures.count - 1) }.map { |at| @pictures.steps[at] }.max(2)[1] || 0.0 }.max
        end

        # Some picture before it looks as some picture after it.
        def returns?(frame, step)
          (1..BACK).any? do |before|
            a = frame - before
            a >= 0 && (0...BACK).any? { |after| before + after > 1 && before + after <= BACK && frame + after < @pictures.count && @pictures.apart(a, frame + after) < RETURN * step }
          end
        end
      end
    end
  end
end
