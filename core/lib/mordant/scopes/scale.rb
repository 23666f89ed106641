# frozen_string_literal: true

module Mordant
  module Scopes
    # What the levels of an instrument stand for in a view: per cent, 10-bit codes in
    # either range, and light. An axis runs over full-range codes, 0..1, which for an
    # absolute encoding is near to a logarithm of light.
    class Scale
      # cd/m2 of display white where neither encoding nor rendering says it: a
      # reference monitor's, ITU-R BT.2035.
      WHITE = 100.0
      # Light that absolute codes count in, cd/m2.
      UNIT = 100.0
      ABSOLUTE_MARKS = [0.1, 1, 10, 100, 203, 1000, 4000, 10_000].freeze
      SHARES = [0.01, 0.05, 0.1, 0.2, 0.5, 1.0].freeze # of white, for marks of relative codes
      # Codes at which light is told, for guides in between.
      STEPS = 128

      # @param view [Grade::View]
      def initialize(view)
        @encoding = Colour.encoding(view.encoding)
        @rendering = view.rendering && Colour.rendering(view.rendering)
        @peak = view.aim&.peak
      end

      # @return [Float] cd/m2 of linear 1.0
      def unit = @encoding.absolute? ? UNIT : (@peak || @rendering&.peak || WHITE)

      # @param codes [Array<Float>] of grey
      # @return [Array<Float>] cd/m2
      def light(codes)
        grey = Numo::DFloat[*codes]
        xyz = Pointwise::Chain.new(@encoding.decoding).exact(Numo::NArray.vstack([grey, grey, grey]))
        (xyz[1, true] * unit).to_a
      end

      # @return [Hash] marks of each unit as [place, words]; light [STEPS + 1] in cd/m2 at
      #   equal distances of code
      def to_h
        {percent: (0..4).map { |n| [n / 4.0, (n * 25).to_s] }, code: [0, 256, 512, 767, 1023].map { |code| [code / 1023.0, code.to_s] },
         legal: [0, 0.25, 0.5, 0.75, 1].map { |share| [share, (64 + 876 * share).round.to_s] }, luminance: luminance, targets: Vectorscope.targets(@encoding.luma_weights), light: table.map { |x| x.round(5) }, absolute: @encoding.absolute?}
      end

      private

      def table = @table ||= light(Array.new(STEPS + 1) { |n| n / STEPS.to_f })

      def luminance
        marks = @encoding.absolute? ? ABSOLUTE_MARKS : SHARES.map { |share| share * unit }
        [[0.0, "0"], *marks.filter_map { |mark| place(mark)&.then { |at| [at.round(5), mark.to_f.then { |x| (x % 1).zero? ? x.to_i.to_s : x.round(2).to_s }] } }]
      end

      # The code that a light stands at, straight between those of the table.
      def place(mark)
        above = table.index { |light| light >= mark * (1 - 1e-6) } or return
        return 0.0 if above.zero?

        low, high = table[above - 1], table[above]
        (above - 1 + (mark - low) / (high - low)) / STEPS
      end
    end
  end
end
