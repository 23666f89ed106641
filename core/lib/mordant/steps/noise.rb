# frozen_string_literal: true

module Mordant
  module Steps
    # Noise taken away: first by frames before and after, as far as they show the same, then by detail size, of luma and of two colour
    # differences apart. How much noise there is, is estimated from each picture itself, or stands in the profile; see
    # Mordant::Noise.
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

      rows :profile, label: "profile", columns: %i[plane size level variance], range: {plane: 0.0..2.0, size: 0.0..3.0, level: -4.0..8.0, variance: -13.0..0.0}, most: 480,
        about: "How much noise there is, as it was measured: plane, detail size, level of luma, logarithm of the variance; none: estimated in each frame.",
        example: [0.0, 1.0, 2.0].product([0.0, 1.0, 2.0, 3.0]).map { |plane, size| [plane, size, 0.7, -4.2 - size] }

      # Without strength nothing changes a picture.
      def neutral? = luma.zero? && colour.zero?

      def agree(path)
        raise ParameterError.new(path: "#{path}.profile", expected: "rows for each of #{Mordant::Noise::PLANES.size} planes and #{Mordant::Noise::Details::SCALES} detail sizes", found: "#{profile.size} rows") unless profile.empty? || Mordant::Noise::Profile.whole?(profile)
      end

      # The profile as curves: "levels", and the variances of planes and detail sizes as 10-based logarithms.
      def shapes(count:)
        return {} if profile.empty?

        found = Mordant::Noise::Profile.of(profile)
        low, high = found.levels.minmax
        levels = (0...count).map { |at| low + (high - low) * at / (count - 1) }
        curves = Mordant::Noise::PLANES.each_with_index.flat_map { |name, plane| (0...Mordant::Noise::Details::SCALES).map { |scale| [:"#{name}_#{scale}", levels.map { |level| Math.log10(found.at(plane, scale, level)) }] } }
        {levels:, **curves.to_h}
      end

      def window = neutral? ? 0 : frames.round

      def margin(raster)
        return 0 if neutral?

        Mordant::Noise::Shrinkage.margin + Mordant::Noise::Patches.margin + (window.zero? ? 0 : reach(raster) + Mordant::Noise::Motion::BLOCK)
      end

      def process(_space)
        lambda do |pictures, at, moment, &before|
          own = pictures[at]
          planes, *others = [own, *pictures.each_index.reject { |index| index == at }.map { |index| pictures[index] }].map { |picture| Mordant::Noise.turned(sound(picture)) }
          out = Mordant::Noise.back(cleaned(planes, others, moment, measured(moment, &before)))
          odd = (own > FURTHEST) | (own < -FURTHEST) | own.isnan
          out[odd] = own[odd] if odd.any?
          out
        end
      end

      FURTHEST = 64.0 # log codes beyond which nothing is noise: such values stay as they are

      private

      # Without values that no picture should hold.
      def sound(picture)
        return picture if !picture.sum.nan? && picture.max <= FURTHEST && picture.min >= -FURTHEST

        made = picture.clip(-FURTHEST, FURTHEST)
        made[picture.isnan] = 0.0
        made
      end

      def reach(raster) = (movement * raster.height).round

      # Of the whole picture, whatever part of it is made.
      def measured(moment)
        return Mordant::Noise::Profile.of(profile) unless profile.empty?

        whole = Grade::Window.whole(moment.width, moment.height)
        Mordant::Noise::Profile.estimate(Mordant::Noise.turned(sound(yield(moment.at(whole)))), whole)
      end

      def cleaned(planes, others, moment, found)
        strengths, window = [luma, colour, colour], moment.window
        level = planes[0]
        variances = planes.each_index.map { |plane| found.table(plane).call(level) }
        made = Mordant::Noise::Temporal.new(window, variances, strengths:, effort:, reach: reach(moment)).call(planes, others)
        made = finer(made, variances, strengths, window) if method == "fine"
        Mordant::Noise::Shrinkage.new(window, level, made.left, found).call(made.planes, strengths)
      end

      def finer(made, variances, strengths, window)
        found = Mordant::Noise::Patches.new(window, made.left ? variances.map { |variance| variance * made.left } : variances, strengths:).call(made.planes)
        Mordant::Noise::Temporal::Made.new(planes: found.planes, left: made.left ? made.left * found.left : found.left)
      end
    end
  end
end
