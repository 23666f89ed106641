# frozen_string_literal: true

module Mordant
  # What values that never change have in common: copies of themselves with something else in them.
  module Altered
    private

    # @yield in the copy, before it is frozen
    # @return [Object] of the same class
    def copy(&change)
      dup.tap do |one|
        one.instance_exec(&change)
        one.freeze
      end
    end
  end
end
