# frozen_string_literal: true

module Mordant
  module Deliver
    # A stretch of a programme, decoded and graded once, written to several outputs.
    class Pass
      # @return [Findings]
      attr_reader :findings

      # @param programme [Programme] whose sources have the variants of the sheets
      # @param space [Colour::WorkingSpace]
      # @param writers [Hash{Object => SequenceWriter, VideoWriter}] by output
      # @param skip [Boolean] leave frames out that cannot be decoded, and go on
      # @param describe [#call] record frame to [Media::FrameFacts, tokens of burn-ins]
      # @param bind [#call] a sheet's view and a record frame to the view as it is there; see Grade::View#bound
      # @param findings [Findings] of those before it
      def initialize(programme:, space:, writers:, describe:, skip: false, bind: ->(view, _) { view }, findings: Findings.new)
        @programme, @space, @writers, @describe, @skip, @bind = programme, space, writers, describe, skip, bind
        @findings = findings
      end

      # Writes what is missing of a stretch, and measures what was not.
      #
      # @yieldparam record [Integer] frame that all outputs have now; may raise to stop
      # @raise [MediaError, SystemCallError] with all frames before it written
      def run(first:, count:, &block)
        @writers.each_value(&:open)
        at = first
        while at < first + count
          at = (@writers.keys.all? { |output| settled?(output, at) }) ? at + 1 : stretch(at, first + count - at, &block)
        end
        GC.start # what is left of frames does not add up from stretch to stretch
      end

      private

      def settled?(output, record) = @writers[output].has?(record) && findings.measured?(output, record)

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

        leave_out(at, e.message)
        at + 1
      end

      def variants = @variants ||= @writers.values.map { |writer| writer.sheet.variant }.uniq

      def write(frames, record)
        facts, tokens = @describe.call(record)
        left = @writers.reject { |output, _| settled?(output, record) }
        frames.each_value(&:rgb) unless left.one? # graded once for all
        seen, shares = {}, {}
        left.each do |output, writer|
          sheet = writer.sheet
          viewed = seen[[sheet.variant, sheet.view]] ||= Grade::Output.for(@bind.call(sheet.view, record), @space).run(frames.fetch(sheet.variant))
          next if left.one? && straight(output, writer, viewed, record, facts)

          picture = sheet.burns.draw(Fit.call(viewed, sheet), tokens)
          beyond = shares[[sheet.variant, sheet.view, sheet.format.float?]] ||= Beyond.share(viewed.rgb, size: viewed.size, float: sheet.format.float?)
          findings.measure(output, record, levels: LightLevels.of(picture), beyond:)
          writer.write(record, picture, facts) unless writer.has?(record)
        end
        seen.each_value { |viewed| viewed.rgb.free unless viewed.is_a?(Grade::Coming) && viewed.coming? } # nobody has them any more, and they are large
      end

      # What a single output is made of, without pictures between.
      #
      # @param frame [Frame] as the output has it
      # @return [Boolean] it is done
      def straight(output, writer, frame, record, facts)
        return false if writer.has?(record) || !(writer.planes? || writer.sheet.format.halves?) || !Straight.can?(frame, writer.sheet)

        @straight ||= Straight.new
        made = writer.planes? ? @straight.codes(frame, dither: writer.sheet.dither(record), of: writer.bits) : @straight.halves(frame)
        return false unless made

        findings.measure(output, record, beyond: made.beyond)
        writer.planes? ? writer.keep_planes(record, made.planes) : writer.write(record, Media::HalfPlanes.new(made.planes, width: frame.width, height: frame.height, encoding: frame.encoding), facts)
        made.planes.clear # nobody has them any more, and they are large
        true
      end

      # A video has no gaps: a black frame stands where one is lost.
      def leave_out(record, reason)
        facts, = @describe.call(record)
        @writers.each do |output, writer|
          next if settled?(output, record)

          sheet = writer.sheet
          unless sheet.format.sequence? || writer.has?(record)
            writer.write(record, Frame.new(Numo::SFloat.zeros(3, sheet.width * sheet.height), width: sheet.width, height: sheet.height, encoding: sheet.view.encoding), facts)
          end
          findings.measure(output, record) unless sheet.format.sequence?
          findings.lose(output, record, reason)
        end
      end
    end
  end
end
