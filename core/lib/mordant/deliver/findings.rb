# frozen_string_literal: true

module Mordant
  module Deliver
    # What was found out of each output while a stretch was written: frames that were left
    # out, light levels, pixels beyond the codes. It is kept as JSON with the stretch, so that
    # whoever goes on after a killed writer measures again what was not kept.
    class Findings
      KINDS = %w[measured levels beyond lost].freeze

      # @param kept [Hash] of to_h
      def initialize(kept = {})
        @of = Hash.new { |all, output| all[output] = KINDS.to_h { |kind| [kind, []] } }
        kept.each { |output, found| KINDS.each { |kind| @of[output][kind].concat(found.fetch(kind, [])) } }
      end

      # @param output [Object] of which to_s tells it from others
      # @param record [Integer] frame
      # @return [Boolean]
      def measured?(output, record) = measured(output).include?(record)

      # @param levels [Array<Float>, nil] see LightLevels.of
      # @param beyond [Float] share of the frame's pixels beyond what its codes can say
      def measure(output, record, levels: nil, beyond: 0.0)
        return if measured?(output, record)

        lost(output).reject! { |(number, _)| number == record }
        measured(output) << record
        levels(output) << levels if levels
        beyond(output) << [record, beyond] if beyond.positive?
      end

      # @param output [Object]
      # @param record [Integer] frame
      # @param reason [String] why it was left out
      def lose(output, record, reason)
        lost(output) << [record, reason] unless lost(output).any? { |(number, _)| number == record }
      end

      # @!method levels(output)
      #   @return [Array<Array<Float>>] of each measured frame
      # @!method beyond(output)
      #   @return [Array<Array(Integer, Float)>] record frames and shares
      # @!method lost(output)
      #   @return [Array<Array(Integer, String)>] record frames and why each was left out
      # @!method measured(output)
      #   @return [Array<Integer>] record frames
      KINDS.each { |kind| define_method(kind) { |output| @of[output.to_s][kind] } }

      # @return [Hash] for JSON
      def to_h = @of
    end
  end
end
