# frozen_string_literal: true

module Mordant
  module Steps
    # Noise taken away: first by frames before and after, as far as they show the same, then by detail size, of luma and of two colour
    # differences apart. How much noise there is, is estimated from the picture itself; see Mordant::Noise.
    class Noise < Step
      METHODS = %w[fast fine].freeze

      named :noise, "Noise"
      domain :log
      reach :time
      circuit :noise
      takes_away

      parameter :luma, label: "luma", unit: :ratio, range: 0.0..2.0, neutral: 0.0, about: "How much of the noise of lightness goes; 1 is as much as there is."
      parameter :colour, label: "colour", unit: :ratio, range: 0.0..2.0, neutral: 0.0, about: "How much of the noise of colour goes; 1 is as much as there is."
      parameter :frames, label: "frames", unit: :frames, range: 0.0..5.0, neutral: 0.0, about: "So many before and as many after are compared; rounded to whole ones."
      text :method, label: "method", from: METHODS, neutral: "fast", about: "Fast: by detail size. Fine: patches near each other are compared first."
      text :effort, label: "effort", from: Mordant::Noise::Motion::EVERY.keys, neutral: "usual", about: "How carefully movement between frames is looked for."
      parameter :movement, label: "movement", unit: :share, range: 0.0..0.06, neutral: 0.02, about: "How far anything moves from frame to frame at most, as a share of the picture's height."

      # Without strength nothing changes a picture.
      def neutral? = luma.zero? && colour.zero?

      def window = neutral? ? 0 : frames.round

      def margin(raster)
        return 0 if neutral?

        Mordant::Noise::Details.margin + Mordant::Noise::Patches.margin + (window.zero? ? 0 : reach(raster) + Mordant::Noise::Motion::BLOCK)
      end

      def process(_space)
        lambda do |pictures, at, moment, &before|
          planes, *others = [pictures[at], *pictures.each_index.reject { |index| index == at }.map { |index| pictures[index] }].map { |picture| Mordant::Noise.turned(picture) }
          Mordant::Noise.back(cleaned(planes, others, moment, profile(moment, &before)))
        end
      end

      private

      def reach(raster) = (movement * raster.height).round

      # Of the whole picture, whatever part of it is made.
      def profile(moment)
        whole = Grade::Window.whole(moment.width, moment.height)
        Mordant::Noise::Profile.estimate(Mordant::Noise.turned(yield(moment.at(whole))), whole)
      end

      def cleaned(planes, others, moment, profile)
        strengths, window = [luma, colour, colour], moment.window
        level = planes[0]
        variances = planes.each_index.map { |plane| profile.table(plane).call(level) }
        made = Mordant::Noise::Temporal.new(window, variances, strengths:, effort:, reach: reach(moment)).call(planes, others)
        made = finer(made, variances, strengths, window) if method == "fine"
        made.planes.each_with_index.map do |plane, index|
          next plane if strengths[index].zero?

          Mordant::Noise::Shrinkage.of(plane, window, strengths[index]) { |scale| profile.table(index, scale).call(level).then { |variance| made.left ? variance * made.left : variance } }
        end
      end

      def finer(made, variances, strengths, window)
        found = Mordant::Noise::Patches.new(window, made.left ? variances.map { |variance| variance * made.left } : variances, strengths:).call(made.planes)
        Mordant::Noise::Temporal::Made.new(planes: found.planes, left: made.left ? made.left * found.left : found.left)
      end
    end
  end
end
