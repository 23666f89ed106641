# frozen_string_literal: true

module Mordant
  module Scopes
    # How often each 10-bit code occurs.
    module Histogram
      module_function

      # @param signal [Signal]
      # @param channel [Symbol]
      # @return [Numo::UInt32] [1024]
      def counts(signal, channel) = signal.counts(channel)

      # @param signal [Signal]
      # @return [String] of each channel in turn, little-endian 32 bits
      def packed(signal) = Signal::CHANNELS.map { |channel| Numo::UInt32.cast(counts(signal, channel)).to_binary }.join
    end
  end
end
