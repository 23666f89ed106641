# frozen_string_literal: true

module Mordant
  module Grade
    # What plans have in common, kept while it is asked for: one is made for each frame of what moves and for each move of a
    # hand, and mostly differs from the one before it in one step. Operations of steps with the same values are the same objects,
    # runs of the same operations the same chain, with the tables and kernels it has made.
    module Common
      OPERATIONS = 128 # steps
      CHAINS = 64 # tables of a tenth of a megabyte, of light a whole one

      @operations, @chains = {}, {}
      @lock = Mutex.new

      class << self
        # @param step [Steps::Step]
        # @param space [Colour::WorkingSpace]
        # @param share [Float] of its change
        # @yieldreturn [Array] its operations
        # @return [Array] the same for a step of the same kind and values that reads the same files
        def operations(step, space, share, &)
          kept(@operations, [step.class, step.values, step.stamps, space.id, share], OPERATIONS, &)
        end

        # @param list [Array] Pointwise operations
        # @return [Pointwise::Chain] the same for the same objects
        def chain(list)
          kept(@chains, list.map(&:object_id), CHAINS) { [list, Pointwise::Chain.new(list)] }.last # held, so that no others get their ids
        end

        private

        # What was asked for longest ago goes first.
        def kept(known, key, most)
          found = @lock.synchronize { known[key] = known.delete(key) if known.key?(key) }
          return found if found

          made = yield.freeze
          @lock.synchronize do
            known.shift while known.size >= most
            known[key] ||= made
          end
        end
      end
    end
  end
end
