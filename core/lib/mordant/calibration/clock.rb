# frozen_string_literal: true

module Mordant
  module Calibration
    # Time that passes.
    class Clock
      # @return [Float] seconds
      def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)

      # @param seconds [Float]
      def wait(seconds) = sleep(seconds.clamp(0.0, nil))

      # Time that is counted, not waited.
      class Counted
        attr_reader :now

        def initialize = @now = 0.0

        def wait(seconds) = @now += seconds.clamp(0.0, nil)
      end
    end
  end
end
