# frozen_string_literal: true

module Mordant
  module Scopes
    # What instruments measure: the codes of a picture for a view, all of it or a region.
    #
    # Luma and colour differences are those of the view's own signal: the weights of
    # ITU-R BT.709, item 3.2, or BT.2020, table 4; of other primaries their luminances.
    # Levels are 10-bit full-range codes; codes beyond the ends count at the ends, NaN at 0.
    class Signal
      CODES = 1024
      CHANNELS = %i[luma red green blue].freeze

      # @return [Integer] pixels across and down, of the region
      attr_reader :width, :height
      # @return [String] encoding id
      attr_reader :encoding

      # @param frame [Frame] codes of a view
      # @param region [Array<Float>, nil] see Region
      # @raise [ParameterError] of an odd region
      def initialize(frame, region: nil)
        @encoding = frame.encoding
        columns, rows = region ? Region.pixels(region, frame.width, frame.height) : [0...frame.width, 0...frame.height]
        @width, @height = columns.size, rows.size
        rgb = region ? Region.cut(frame, region) : frame.rgb
        @rows = Pointwise.rows(rgb)
        @traces, @pairs = {}, {}
      end

      # @return [Integer] pixels
      def size = width * height

      def red = planes[0]

      def green = planes[1]

      def blue = planes[2]

      # @return [Array<Float>] of red, green and blue in luma
      def weights = Colour.encoding(encoding).luma_weights

      def luma = @luma ||= self.class.luma(planes, weights)

      # @return [Numo::SFloat] -0.5..0.5 within the gamut
      def cb = @cb ||= differences.first

      # @return [Numo::SFloat] -0.5..0.5 within the gamut
      def cr = @cr ||= differences.last

      # @param channel [Symbol] of CHANNELS
      # @return [Numo::UInt16] [n], 0..1023
      def levels(channel) = (@levels ||= CHANNELS.zip(self.class.levels(weights).call(*@rows)).to_h).fetch(channel)

      # @param channel [Symbol]
      # @return [Numo::UInt32] [1024], how often each level occurs
      def counts(channel) = (@counts ||= CHANNELS.zip(self.class.counts(weights).call(*@rows)).to_h).fetch(channel)

      # @param channel [Symbol]
      # @return [Numo::UInt32] see Waveform
      def trace(channel)
        columns = Waveform.columns(width)
        @traces[channel] ||= self.class.trace(channel, weights, columns).call(*@rows, Waveform.firsts(width, height)).first.reshape!(columns, Waveform::LEVELS)
      end

      # @param zoom [Integer]
      # @return [Numo::UInt32] see Vectorscope
      def pairs(zoom) = @pairs[zoom] ||= Vectorscope.counted(weights, zoom).call(*@rows).first.reshape(Vectorscope::SIZE, Vectorscope::SIZE)

      # @return [Numo::UInt32] see Solid
      def cells = @cells ||= Solid::CELLS.call(*@rows).first

      class << self
        # @param planes [Array<Numo::SFloat, Pointwise::Recorded>] red, green, blue
        # @param weights [Array<Float>]
        # @return [Numo::SFloat, Pointwise::Recorded]
        def luma(planes, weights) = planes.zip(weights).map { |plane, weight| plane * weight }.reduce { |sum, plane| (sum.inplace + plane).out_of_place! }

        # @param planes [Array<Numo::SFloat, Pointwise::Recorded>] red, green, blue
        # @param luma [Numo::SFloat, Pointwise::Recorded]
        # @param weights [Array<Float>]
        # @return [Array<Numo::SFloat, Pointwise::Recorded>] Cb and Cr
        def differences(planes, luma, weights) = [2, 0].map { |channel| (planes[channel] - luma) * (0.5 / (1 - weights[channel])) }

        # @param weights [Array<Float>] of luma
        # @return [Pointwise::Sweep] from planes to the levels of CHANNELS
        def levels(weights)
          (@levels ||= {})[weights] ||= Pointwise::Sweep.new(3, makes: :codes) { |*planes| [luma(planes, weights), *planes].map { |plane| level(plane) } }
        end

        # @param weights [Array<Float>] of luma
        # @return [Pointwise::Counted] of planes the levels of CHANNELS
        def counts(weights)
          (@counts ||= {})[weights] ||= Pointwise::Counted.new(3, CODES) { |*planes| [luma(planes, weights), *planes].map { |plane| [level(plane)] } }
        end

        # Of one channel, whose trace stays near the processor meanwhile.
        #
        # @param channel [Symbol] of CHANNELS
        # @param weights [Array<Float>] of luma
        # @param columns [Integer]
        # @return [Pointwise::Counted] of planes, and the first place of each pixel's column, the places in its trace
        def trace(channel, weights, columns)
          (@traces ||= {})[[channel, weights, columns]] ||= Pointwise::Counted.new(4, columns * Waveform::LEVELS) do |*planes, firsts|
            plane = (channel == :luma) ? luma(planes, weights) : planes[CHANNELS.index(channel) - 1]
            [[Pointwise.whole(Pointwise.held(level(plane), 0.0) * (Waveform::LEVELS / CODES.to_f), Waveform::LEVELS - 1) + firsts]]
          end
        end

        # @param plane [Numo::SFloat, Pointwise::Recorded] codes
        # @return [Numo::SFloat, Pointwise::Recorded] 0.5...CODES, of which a level is cut off
        def level(plane)
          held = plane.clip(0.0, 1.0)
          ((held.inplace * (CODES - 1)) + 0.5).out_of_place!
        end
      end

      private

      def differences = self.class.differences(planes, luma, weights)

      def planes = @planes ||= @rows.map(&:dup)
    end
  end
end
