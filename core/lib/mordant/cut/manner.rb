# frozen_string_literal: true

module Mordant
  module Cut
    # How a transition goes: by what shares over its frames, and how a wipe is laid out. Immutable.
    #
    # Of n frames, frame k (from 0) is at x = (k + 1) / (n + 1) of the way. The new shot's share is x where the curve is
    # straight, (1 - cos(pi x)) / 2 where it is eased, and what was measured where it is measured; of another number
    # of frames than were measured, straight between those. A shot whose clip has too few frames beyond its end for the
    # transition may hold its last one.
    class Manner
      KEYS = %w[curve shares softness backward hold].freeze
      CURVES = %w[straight eased measured].freeze
      SOFTEST = 1.0 # share of the way over which a pixel is uncovered
      MOST = 10_000 # frames that are measured

      # @return [String] one of CURVES
      attr_reader :curve
      # @return [Array<Float>, nil] of the new shot, measured
      attr_reader :shares
      # @return [Float] 0.0..SOFTEST, of a wipe's edge
      attr_reader :softness

      # @param document [Hash, Manner, nil] as parsed from JSON
      # @return [Manner]
      # @raise [ParameterError]
      def self.of(document) = document.is_a?(Manner) ? document : new(document || {})

      # @param document [Hash] some of KEYS
      # @param path [String] for errors
      # @raise [ParameterError]
      def initialize(document, path: "manner")
        Checks.held(path, document, KEYS)
        @curve = document.fetch("curve", "straight")
        refuse("#{path}.curve", CURVES.join(", "), curve) unless CURVES.include?(curve)
        @shares = measured(document["shares"], "#{path}.shares") if curve == "measured"
        @softness = Checks.number(document.fetch("softness", 0.0), "#{path}.softness", 0.0..SOFTEST)
        @backward, @hold = %w[backward hold].map { |key| Checks.switch(document.fetch(key, false), "#{path}.#{key}") }
        freeze
      end

      # @return [Boolean] a wipe runs the other way
      def backward? = @backward

      # @return [Boolean] the shot before stands still where its clip has no more frames
      def hold? = @hold

      # @param step [Integer] frames from the transition's first one
      # @param length [Integer] frames
      # @return [Float] 0.0..1.0, of the new shot
      def share(step, length)
        way = (step + 1.0) / (length + 1)
        case curve
        when "straight" then way
        when "eased" then (1 - Math.cos(Math::PI * way)) / 2
        else (shares.size == length) ? shares[step] : between(way)
        end
      end

      # @param other [Hash] of KEYS
      # @return [Manner]
      # @raise [ParameterError]
      def with(other) = Manner.new(to_h.merge(other).compact)

      # @return [Hash] without what is as usual
      def to_h
        {"curve" => (curve unless curve == "straight"), "shares" => shares, "softness" => (softness unless softness.zero?), "backward" => backward? || nil, "hold" => hold? || nil}.compact
      end

      def ==(other) = other.is_a?(Manner) && to_h == other.to_h

      private

      # Measured shares at another number of frames; 0 before the first and 1 after the last.
      def between(way)
        all = [0.0, *shares, 1.0]
        at = way * (all.size - 1)
        low = at.floor.clamp(0, all.size - 2)
        all[low] + (all[low + 1] - all[low]) * (at - low)
      end

      def measured(shares, path)
        fine = shares.is_a?(Array) && shares.size.between?(1, MOST) && shares.all? { |share| share.is_a?(Numeric) && share.real? && share.between?(0.0, 1.0) }
        fine ? shares.map(&:to_f).freeze : refuse(path, "1 to #{MOST} shares of the new shot, 0 to 1", shares)
      end

      def refuse(path, expected, found) = raise(ParameterError.new(path:, expected:, found:))
    end
    Manner::PLAIN = Manner.new({})
  end
end
