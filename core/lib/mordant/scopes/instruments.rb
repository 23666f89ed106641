# frozen_string_literal: true

module Mordant
  module Scopes
    # The readings that go with a picture in one answer: of those instruments that are
    # looked at.
    class Instruments
      # Rows of a picture that share a level at about two thirds of full brightness.
      TYPICAL_SHARE = 24.0
      # Pixels of a picture that share a pair of colour differences at that.
      TYPICAL_PAIR = 12_000.0
      KINDS = %w[traces vectorscope histogram solid].freeze

      # @param wanted [Hash{String => Object}] of KINDS: traces and histogram => true, vectorscope =>
      #   zoom, solid => space; nil: traces alone
      # @return [Hash]
      # @raise [ParameterError]
      def self.checked(wanted)
        wanted ||= {"traces" => true}
        fine = wanted.is_a?(Hash) && (wanted.keys - KINDS).empty?
        fine ? wanted : raise(ParameterError.new(path: "scopes", expected: "an object of #{KINDS.join(", ")}", found: wanted))
      end

      # @param signal [Signal]
      # @param wanted [Hash] as checked
      # @param limit [Colour::Primaries, nil] gamut that the view is held to
      def initialize(signal, wanted = {"traces" => true}, limit: nil)
        @signal, @wanted, @limit = signal, wanted, limit
        @traces = {}
      end

      # What they are made of, to be made at once with other things: what can be divided comes last.
      #
      # @return [Array<#call>]
      # @raise [ParameterError] when it is called, of an odd zoom
      def work
        [*(method(:solid) if @wanted["solid"]), *(method(:vector) if @wanted["vectorscope"]), *(Signal::CHANNELS.map { |channel| -> { trace(channel) } } if @wanted["traces"]), method(:extents)]
      end

      # @return [Hash] columns, levels, where channels begin and end, what the vectorscope's edge
      #   is, and what solids need
      def header
        {vector: @wanted["vectorscope"] && {half: Vectorscope::HALF / @wanted["vectorscope"], size: Vectorscope::SIZE}, columns: Waveform.columns(@signal.width), levels: Waveform::LEVELS, pixels: @signal.size, extents: extents,
         solid: solid && {points: solid.size, flattened: solid.flattened, bounds: solid.bounds, legal: solid.legal, axes: solid.axes}}.compact
      end

      # @return [Hash{Symbol => String}] luma, red, green, blue: brightness 0..255 by column and
      #   level, level 0 first; vector: brightness by Cr and Cb; histogram: counts; points and
      #   colours of the solid
      def parts
        made = {}
        Signal::CHANNELS.each { |channel| made[channel] = trace(channel) } if @wanted["traces"]
        made[:vector] = vector if @wanted["vectorscope"]
        made[:histogram] = Histogram.packed(@signal) if @wanted["histogram"]
        made.update(points: solid.points.to_binary, colours: solid.colours.to_binary) if solid
        made
      end

      private

      def trace(channel) = @traces[channel] ||= @signal.trace(channel).then { |counts| Density.brightness(counts, typical: @signal.size / TYPICAL_SHARE / counts.shape[0]).to_binary }

      def vector = @vector ||= Density.brightness(@signal.pairs(@wanted["vectorscope"]), typical: [@signal.size / TYPICAL_PAIR, 1.0].max).to_binary

      def solid = @wanted["solid"] && (@solid ||= Solid.new(@signal, space: @wanted["solid"], limit: @limit))

      def extents = @extents ||= Extents.new(Signal::CHANNELS.to_h { |channel| [channel, @signal.counts(channel)] }).to_h
    end
  end
end
