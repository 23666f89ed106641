# frozen_string_literal: true

module Mordant
  module Steps
    # Noise taken away: first by frames before and after, as far as they show the same, then by detail size, of luma and of two colour
    # differences apart or linked. How much noise there is, is estimated from each picture itself, or stands in the profile; see
    # Mordant::Noise.
    class Noise < Step
      METHODS = %w[fast fine].freeze
      LINKS = %w[apart linked].freeze
      SIZES = %i[fine small middle large].freeze

      named :noise, "Noise"
      domain :log
      reach :time
      circuit :noise
      takes_away

      parameter :luma, label: "luma", unit: :ratio, range: 0.0..2.0, neutral: 0.0, about: "How much of the noise of lightness goes; 1 is as much as there is."
      parameter :colour, label: "colour", unit: :ratio, range: 0.0..2.0, neutral: 0.0, about: "How much of the noise of colour goes; 1 is as much as there is."
      text :link, label: "luma and colour", from: LINKS, neutral: "apart", about: "Linked: colour goes by the numbers of luma."
      parameter :frames, label: "frames", unit: :frames, range: 0.0..5.0, neutral: 0.0, about: "So many before and as many after are compared; rounded to whole ones."
      parameter :temporal, label: "by frames", unit: :ratio, range: 0.0..2.0, neutral: 1.0, channels: %i[luma colour], about: "How much of it other frames take, times luma and colour; 0: none."
      text :method, label: "method", from: METHODS, neutral: "fast", about: "Fast: by detail size. Fine: patches near each other are compared first."
      parameter :sizes, label: "by size", unit: :ratio, range: 0.0..2.0, neutral: 1.0, channels: SIZES, about: "How much of it goes at each detail size, times luma and colour; 0: none."
      text :effort, label: "effort", from: Mordant::Noise::Motion::EVERY.keys, neutral: "usual", about: "How carefully movement between frames is looked for."
      parameter :movement, label: "movement", unit: :share, range: 0.0..0.06, neutral: 0.02, about: "How far anything moves from frame to frame at most, as a share of the picture's height."

      rows :profile, label: "profile", columns: %i[plane size level variance], range: {plane: 0.0..2.0, size: 0.0..3.0, level: -4.0..8.0, variance: -13.0..0.0}, most: 480,
        about: "How much noise there is, as it was measured: plane, detail size, level of luma, logarithm of the variance; none: estimated in each frame.",
        example: [0.0, 1.0, 2.0].product([0.0, 1.0, 2.0, 3.0]).map { |plane, size| [plane, size, 0.7, -4.2 - size] }

      # Without strength nothing changes a picture.
      def neutral? = strengths.all?(&:zero?)

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

      def window = (neutral? || temporal.all?(&:zero?)) ? 0 : frames.round

      def margin(raster)
        return 0 if neutral?

        Mordant::Noise::Shrinkage.margin + Mordant::Noise::Patches.margin + (window.zero? ? 0 : reach(raster) + Mordant::Noise::Motion::BLOCK)
      end

      def process(_space)
        lambda do |own, others, moment, &before|
          held = sound(own)
          out = Mordant::Noise.back(cleaned(Mordant::Noise.turned(held), others.lazy.map { |other| Mordant::Noise.turned(sound(other)) }, moment, measured(moment, &before)))
          held.equal?(own) ? out : kept(out, own)
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

      # What is no noise stays as it is.
      def kept(out, own)
        odd = (own > FURTHEST) | (own < -FURTHEST) | own.isnan
        out[odd] = own[odd]
        out
      end

      def reach(raster) = (movement * raster.height).round

      # Of places all over the picture, whatever part of it is made.
      def measured(moment)
        return Mordant::Noise::Profile.of(profile) unless profile.empty?

        Mordant::Noise::Estimate.profile(Mordant::Noise::Estimate.windows(moment).lazy.map { |window| [Mordant::Noise.turned(sound(yield(moment.at(window)))), window] })
      end

      def cleaned(planes, others, moment, found)
        level = planes[0]
        variances = (window.positive? || method == "fine") ? found.at_levels(level) : []
        made = Mordant::Noise::Temporal.new(moment.window, variances, strengths: by_frames, effort:, reach: reach(moment)).call(planes, others)
        first = shrunk(made, level, moment.window, found)
        return first if method == "fast"

        variances = variances.zip(made.left).map { |variance, left| variance * left } if made.left
        finer = Mordant::Noise::Patches.new(moment.window, variances, strengths:).call(made.planes, first)
        finer.left = finer.left.zip(made.left).map { |one, left| one * left } if made.left
        shrunk(finer, level, moment.window, found, tries: first)
      end

      def shrunk(made, level, window, found, **tries)
        shrinkage = Mordant::Noise::Shrinkage.new(window, level, made.left, found, sizes:)
        shrinkage.call(made.planes, strengths, **tries).tap { shrinkage.free }
      end

      # Of each plane.
      def strengths = (link == "linked") ? [luma] * 3 : [luma, colour, colour]

      def by_frames = strengths.zip((link == "linked") ? [temporal[0]] * 3 : temporal.values_at(0, 1, 1)).map { |strength, share| strength * share }
    end
  end
end
