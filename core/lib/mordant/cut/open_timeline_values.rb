# frozen_string_literal: true

module Mordant
  module Cut
    # Times, ranges and numbers of an OpenTimelineIO file, checked as they are read. Who includes it has a
    # rate of the record, and says with +fault+ what is wrong.
    module OpenTimelineValues
      private

      # @return [Rational] that a number of frames a second stands for, as it is rounded in files
      def rate(value, place)
        found = number(value, place)
        found.between?(1, 1000) ? exact(found) : fault("a rate of 1 to 1000 at #{place}", value)
      end

      def exact(rate)
        nominal = rate.ceil
        [nominal.to_r, Rational(nominal * 1000, 1001)].min_by { |one| (one - rate).abs }.then { |near| ((near - rate).abs < 0.005) ? near : rate.to_r.rationalize(1r / 1000) }
      end

      def range_of(range, place)
        fault("a TimeRange.1 at #{place}", range) unless schema?(range, "TimeRange")
        [frames(range["start_time"], "#{place}.start_time"), frames(range["duration"], "#{place}.duration").tap { |length| fault("a duration of 0 or more at #{place}", length) if length.negative? }]
      end

      def frames(time, place) = (seconds(time, place) * @rate).round

      def seconds(time, place)
        fault("a RationalTime.1 at #{place}", time) unless schema?(time, "RationalTime")
        number(time["value"], "#{place}.value") / rate(time["rate"], "#{place}.rate")
      end

      def number(value, place)
        return value.to_r if value.is_a?(Integer) || (value.is_a?(Float) && value.finite?)

        fault("a number at #{place}", value)
      end

      def list_of(document, key, place)
        children = document[key]
        children.is_a?(Array) ? children : fault("a list at #{place}.#{key}", children)
      end
    end
  end
end
