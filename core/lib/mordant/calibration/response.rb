# frozen_string_literal: true

module Mordant
  module Calibration
    # How one channel's light answers to its code: 0 at black, 1 at reference white, by a curve through what was
    # read. The curve is kept in light^(1/2.4), in which screens are nearly straight.
    class Response
      GAMMA = 2.4
      TABLE = 4096
      # A screen that shows codes above white rises by at least this share of what it rose before.
      RISES = 0.3

      # @param light [Numo::DFloat]
      # @return [Numo::DFloat] evenly seen, odd about 0
      def self.seen(light) = light.abs**(1 / GAMMA) * ((light < 0).cast_to(Numo::DFloat) * -2 + 1)

      # @return [Numo::DFloat] light of what is seen so
      def self.light(seen) = seen.abs**GAMMA * ((seen < 0).cast_to(Numo::DFloat) * -2 + 1)

      # @param points [Array<Array<Float>>] code and light, codes rising
      def initialize(points)
        highest = 0.0
        seen = [[0.0, 0.0], *points.map { |code, light| [code, highest = [highest + 1e-6, light.clamp(0.0, nil)**(1 / GAMMA)].max] }]
        seen.pop if seen.last.first > 1.0 && clipped?(seen)
        @last = seen.last
        @spline = Declared::Spline.new(seen, straight: true)
        @steps = table(@spline.call(Numo::DFloat.new(TABLE + 1).seq * (@last.first / TABLE)).to_a)
        freeze
      end

      # @param codes [Numo::DFloat]
      # @return [Numo::DFloat] seen
      def seen(codes) = @spline.call(codes)

      # @param seen [Numo::DFloat]
      # @return [Numo::DFloat] the code; beyond the last one read it goes straight on
      def code(seen)
        place = (seen * (TABLE / @last.last)).clip(0.0, TABLE.to_f)
        low = Numo::Int64.cast(place).clip(0, TABLE - 1)
        rest = place - low
        @steps[low].dup * (1 - rest) + @steps[low + 1].dup * rest + (seen - @last.last).clip(0.0, nil) * beyond
      end

      private

      def clipped?(seen)
        before, white, above = seen.last(3)
        (above[1] - white[1]) / (above[0] - white[0]) < RISES * (white[1] - before[1]) / (white[0] - before[0])
      end

      # Codes for equal steps of what is seen.
      def table(values)
        code = @last.first / TABLE
        found = (0..TABLE).map do |step|
          wanted = @last.last * step / TABLE
          after = (values.bsearch_index { |value| value >= wanted } || TABLE).clamp(1, TABLE)
          low, high = values[after - 1], values[after]
          (after - 1 + ((high > low) ? ((wanted - low) / (high - low)).clamp(0.0, 1.0) : 0.0)) * code
        end
        Numo::DFloat.cast(found)
      end

      def beyond = (@steps[TABLE] - @steps[TABLE - TABLE / 16]) / (@last.last / 16)
    end
  end
end
