# frozen_string_literal: true

module Mordant
  module Calibration
    # How a screen's white goes up or down while it is measured: a straight line through what was read of it.
    class Trend
      CERTAIN = 3 # standard errors of the line's slope

      # @param readings [Array<Reading>] of white
      def initialize(readings)
        all = readings.select(&:light)
        @times, @lights = all.map(&:at), all.map { |one| one.light[1] }
        return if all.size < 3

        @mean, @middle = @times.sum / all.size, @lights.sum / all.size
        across = @times.sum { |time| (time - @mean)**2 }
        @slope = @times.zip(@lights).sum { |time, light| (time - @mean) * (light - @middle) } / across
        @error = Math.sqrt(all.sum { |one| one.error[1]**2 } / all.size / across)
      end

      # @return [Float] share by which white changed from the first reading to the last, signed; 0 where noise explains it
      def change = certain? ? @slope * (@times.last - @times.first) / line(@times.first) : 0.0

      # @param time [Float] seconds since the session began
      # @return [Float] what was left of white's first light
      def share(time) = certain? ? line(time) / line(@times.first) : 1.0

      private

      def certain? = @slope ? @slope.abs > CERTAIN * @error : false

      def line(time) = @middle + @slope * (time - @mean)
    end
  end
end
