# frozen_string_literal: true

module Mordant
  module Deliver
    # A stretch of a programme, decoded and graded once, written to several outputs.
    class Pass
      # A frame that could not be made, and why.
      Lost = Struct.new(:record, :reason)

      # @return [Array<Lost>] frames that were left out
      attr_reader :lost

      # @return [Hash{Object => Array<Array<Float>>}] light levels by output, see LightLevels
      attr_reader :levels

      # @return [Hash{Object => Array<Array>}] by output, record frames with the share of their pixels
      #   that lies beyond what its codes can say
      attr_reader :beyond

      # @param programme [Programme] whose sources have the variants of the sheets
      # @param space [Colour::WorkingSpace]
      # @param writers [Hash{Object => SequenceWriter, VideoWriter}] by output
      # @param skip [Boolean] leave frames out that cannot be decoded, and go on
      # @param describe [#call] record frame to [Media::FrameFacts, tokens of burn-ins]
      def initialize(programme:, space:, writers:, describe:, skip: false)
        @programme, @space, @writers, @describe, @skip = programme, space, writers, describe, skip
        @lost, @levels, @beyond = [], Hash.new { |all, output| all[output] = [] }, Hash.new { |all, output| all[output] = [] }
      end

      # Writes what is missing of a stretch.
      #
      # @yieldparam record [Integer] frame that all outputs have now; may raise to stop
      # @raise [MediaError, SystemCallError] with all frames before it written
      def run(first:, count:, &block)
        @writers.each_value(&:open)
        at = first
        while at < first + count
          at = (@writers.values.all? { |writer| writer.has?(at) }) ? at + 1 : stretch(at, first + count - at, &block)
        end
      end

      private

      # @return [Integer] the first frame that was not reached
      def stretch(first, count, &block)
        at = first
        @programme.each_of(variants, first:, count:) do |frames, record|
          write(variants.zip(frames).to_h, record)
          at = record + 1
          block&.call(record)
        end
        at
      rescue MediaError => e
        raise unless @skip
        # a decoder that stops may take good frames before the bad one along
        return stretch(at, 1, &block) if count > 1

        @lost << Lost.new(at, e.message)
        leave_out(at)
        at + 1
      end

      def variants = @variants ||= @writers.values.map { |writer| writer.sheet.variant }.uniq

      def write(frames, record)
        facts, tokens = @describe.call(record)
        seen = {}
        @writers.each do |output, writer|
          next if writer.has?(record)

          sheet = writer.sheet
          key = [sheet.variant, sheet.view, sheet.format.float?]
          viewed, beyond = seen[key] ||= viewed(frames.fetch(sheet.variant), sheet)
          picture = sheet.burns.draw(Fit.call(viewed, sheet), tokens)
          @beyond[output] << [record, beyond] if beyond.positive?
          LightLevels.of(picture)&.then { |levels| @levels[output] << levels }
          writer.write(record, picture, facts)
        end
      end

      # @return [Array(Frame, Float)] in the sheet's view, and the share of its pixels that its codes cannot say
      def viewed(frame, sheet)
        made = Grade::Output.for(sheet.view, @space).run(frame)
        [made, beyond_share(made, sheet.format.float?)]
      end

      SMALLEST = 1e-3 # beyond the codes, as a share of them

      def beyond_share(frame, float)
        return 0.0 if frame.rgb.min > -SMALLEST && (float || frame.rgb.max < 1 + SMALLEST)

        out = frame.rgb < -SMALLEST
        out |= frame.rgb > 1 + SMALLEST unless float
        (out[0, true] | out[1, true] | out[2, true]).count_true.fdiv(frame.size).round(5)
      end

      # A video has no gaps: a black frame stands where one is lost.
      def leave_out(record)
        facts, = @describe.call(record)
        @writers.each_value do |writer|
          next if writer.sheet.format.sequence?

          sheet = writer.sheet
          writer.write(record, Frame.new(Numo::SFloat.zeros(3, sheet.width * sheet.height), width: sheet.width, height: sheet.height, encoding: sheet.view.encoding), facts)
        end
      end
    end
  end
end
