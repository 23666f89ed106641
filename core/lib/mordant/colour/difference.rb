# frozen_string_literal: true

module Mordant
  module Colour
    # Perceived difference between colours.
    module Difference
      DEGREE = Math::PI / 180
      WHITE_D65 = [0.95047, 1.0, 1.08883].freeze # XYZ, CIE 15:2004

      module_function

      # CIE 1976 L*a*b*. Source: CIE 15:2004, 8.2.1.
      #
      # @param xyz [Numo::DFloat] [3, n], Y = 1 at white
      # @return [Numo::DFloat] [3, n]: L* 0..100, a*, b*
      def lab(xyz, white: WHITE_D65)
        fx, fy, fz = 3.times.map do |i|
          t = xyz[i, true] / white[i]
          Piecewise.select(t > (6.0 / 29)**3, Numo::NMath.cbrt(t), t / (3 * (6.0 / 29)**2) + 4.0 / 29)
        end
        Numo::NArray.vstack([116 * fy - 16, 500 * (fx - fy), 200 * (fy - fz)])
      end

      # CIEDE2000 with unit weights.
      # Source: Sharma, Wu, Dalal 2005, equations 2 to 22.
      #
      # @param first [Array<Float>] L*, a*, b*
      # @param second [Array<Float>] L*, a*, b*
      # @return [Float]
      def ciede2000(first, second)
        l1, a1, b1 = first.map(&:to_f)
        l2, a2, b2 = second.map(&:to_f)
        mean_c = (Math.hypot(a1, b1) + Math.hypot(a2, b2)) / 2
        g = 0.5 * (1 - Math.sqrt(mean_c**7 / (mean_c**7 + 25.0**7)))
        c1, h1 = chroma_hue((1 + g) * a1, b1)
        c2, h2 = chroma_hue((1 + g) * a2, b2)
        achromatic = (c1 * c2).zero?

        dh = hue_step(h2 - h1, achromatic)
        dl = l2 - l1
        dc = c2 - c1
        dhh = 2 * Math.sqrt(c1 * c2) * Math.sin(dh / 2 * DEGREE)

        l = (l1 + l2) / 2
        c = (c1 + c2) / 2
        h = mean_hue(h1, h2, achromatic)
        t = 1 - 0.17 * cos(h - 30) + 0.24 * cos(2 * h) + 0.32 * cos(3 * h + 6) - 0.20 * cos(4 * h - 63)
        sl = 1 + 0.015 * (l - 50)**2 / Math.sqrt(20 + (l - 50)**2)
        sc = 1 + 0.045 * c
        sh = 1 + 0.015 * c * t
        rotation = -Math.sin(60 * Math.exp(-((h - 275) / 25)**2) * DEGREE) * 2 * Math.sqrt(c**7 / (c**7 + 25.0**7))
        Math.sqrt((dl / sl)**2 + (dc / sc)**2 + (dhh / sh)**2 + rotation * (dc / sc) * (dhh / sh))
      end

      def chroma_hue(a, b)
        [Math.hypot(a, b), (a.zero? && b.zero?) ? 0.0 : (Math.atan2(b, a) / DEGREE) % 360]
      end

      def hue_step(difference, achromatic)
        return 0.0 if achromatic

        if difference > 180 then difference - 360
        elsif difference < -180 then difference + 360
        else
          difference
        end
      end

      def mean_hue(h1, h2, achromatic)
        sum = h1 + h2
        return sum if achromatic
        return sum / 2 if (h1 - h2).abs <= 180

        (sum < 360) ? (sum + 360) / 2 : (sum - 360) / 2
      end

      def cos(degrees) = Math.cos(degrees * DEGREE)
    end
  end
end
