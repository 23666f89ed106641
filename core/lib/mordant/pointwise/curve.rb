# frozen_string_literal: true

module Mordant
  module Pointwise
    # A function of each channel alone.
    #
    # Functions take and return a Numo vector of either element type and are
    # defined for every finite number.
    class Curve
      # Linear light and anything else that spans many octaves: tabulated over
      # the float's own leading bits.
      FLOAT = :float
      # Log-encoded values: tabulated at equal distances, continued straight beyond.
      LOG = :log
      # Tables already, or too finely shaped for one: evaluated as they stand.
      DIRECT = :direct

      attr_reader :functions, :domain

      # @param functions [Array<#call>, #call] three, or one for all channels
      # @param domain [Symbol] FLOAT or LOG: what the input values are; DIRECT: no table
      # @param fine [Boolean] of LOG: false for log codes to log codes, whose table may
      #   be coarser and is made sooner
      def initialize(functions, domain: FLOAT, fine: true)
        @functions = functions.is_a?(Array) ? functions : [functions] * 3
        @domain, @fine = domain, fine
      end

      def fine? = @fine

      def call(planes)
        planes.each_with_index.map { |plane, channel| functions[channel].call(plane) }
      end

      def merge(following)
        return unless following.is_a?(Curve) && direct? == following.direct?

        pairs = functions.zip(following.functions)
        made = pairs.uniq.to_h { |first, second| [[first, second], ->(x) { second.call(first.call(x)) }] }
        composed = pairs.map { |pair| made.fetch(pair) }
        Curve.new(composed, domain:, fine: fine? || following.fine?)
      end

      def direct? = domain == DIRECT

      # Kept once made, so that curves which outlive a chain are tabulated once.
      #
      # @return [Tabulated, Curve] the same functions through interpolated tables
      def tabulate = direct? ? self : (@tabulate ||= Tabulated.of(self))

      # @return [CodeTable] the same functions straight from 16-bit codes
      def code_table = (@code_table ||= CodeTable.new(self))
    end
  end
end
