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
        @signal, @wanted = signal, wanted
        @solid = Solid.new(signal, space: wanted["solid"], limit:) if wanted["solid"]
      end

      # @return [Hash] columns, levels, where channels begin and end, what the vectorscope's edge
      #   is, and what solids need
      def header
        {vector: @wanted["vectorscope"] && {half: Vectorscope::HALF / @wanted["vectorscope"], size: Vectorscope::SIZE}, columns: Waveform.columns(@signal.width), levels: Waveform::LEVELS, pixels: @signal.size, extents: extents,
         solid: @solid && {points: @solid.size, flattened: @solid.flattened, bounds: @solid.bounds, legal: @solid.legal, axes: @solid.axes}}.compact
      end

      # @return [Hash{Symbol => String}] luma, red, green, blue: brightness 0..255 by column and
      #   level, level 0 first; vector: brightness by Cr and Cb; histogram: counts; points and
      #   colours of the solid
      def parts
        made = {}
        made.update(traces.transform_values { |trace| Density.brightness(trace, typical: @signal.size / TYPICAL_SHARE / trace.shape[0]).to_binary }) if @wanted["traces"]
        made[:vector] = Density.brightness(@signal.pairs(@wanted["vectorscope"]), typical: [@signal.size / TYPICAL_PAIR, 1.0].max).to_binary if @wanted["vectorscope"]
        made[:histogram] = Histogram.packed(@signal) if @wanted["histogram"]
        made.update(points: @solid.points.to_binary, colours: @solid.colours.to_binary) if @solid
        made
      end

      private

      def traces = Signal::CHANNELS.to_h { |channel| [channel, @signal.trace(channel)] }

      def extents = Extents.new(Signal::CHANNELS.to_h { |channel| [channel, @signal.counts(channel)] }).to_h
    end
  end
end
