# frozen_string_literal: true

module Mordant
  module Grade
    # What a plan is a list of. A section has
    #
    #   call(moment) { |moment| rgb }   what it makes of what comes before it, which it asks for at
    #                                   the moments it needs: Numo::SFloat [3, n] of the window
    #   margin(raster)                  pixels around one that it depends on
    #   window                          frames before and after that it depends on
    #   pointwise?                      a lattice can stand for it
    #
    # and never writes to what it was given, but uses it up: what it asks for is new each time.
    module Section
      # A run of pointwise operations.
      class Fused
        # @return [Pointwise::Chain]
        attr_reader :chain

        # @param chain [Pointwise::Chain]
        def initialize(chain)
          @chain = chain
          freeze
        end

        def call(moment)
          input = yield(moment)
          chain.empty? ? input : chain.call(input).tap { input.free }
        end

        def margin(_raster) = 0

        def window = 0

        def pointwise? = true
      end

      # A step that sees more than a pixel's own value, at its strength.
      class Reaching
        # @param step [Steps::Step]
        # @param space [Colour::WorkingSpace]
        # @param strength [Float]
        def initialize(step, space, strength)
          @step, @process, @strength = step, step.process(space), strength
          freeze
        end

        def margin(raster) = @step.margin(raster)

        def window = @step.window

        def pointwise? = false

        private

        # What of a larger window is asked for.
        def part(made, moment, more) = moment.window.cut(made, more.window).tap { |one| made.free unless one.equal?(made) }
      end

      # One that sees an area.
      class Area < Reaching
        def call(moment)
          more = moment.grown(margin(moment))
          input = yield(more)
          changed = part(@process.call(input, more), moment, more)
          return changed.tap { input.free } if @strength == 1.0

          before = part(input, moment, more)
          Section.mixed(before, changed, @strength).tap { before.free }
        end
      end

      # One that sees frames before and after, which come one after the other and are gone then.
      class Time < Reaching
        def call(moment, &before)
          more = moment.grown(margin(moment))
          own = yield(more)
          changed = part(@process.call(own, others(more, &before), more, &before), moment, more)
          (@strength == 1.0) ? changed : Section.mixed(part(own, moment, more), changed, @strength)
        end

        private

        def others(more)
          Enumerator.new do |out|
            (-window..window).each do |away|
              picture = yield(more.neighbour(away) || next) unless away.zero?
              picture && (out << picture)
              picture&.free
            end
          end
        end
      end

      # @return [Numo::SFloat] input + share * (changed - input); changed is used up
      def self.mixed(input, changed, share)
        changed.inplace - input
        changed.inplace * share
        (changed.inplace + input).out_of_place!
      end
    end
  end
end
