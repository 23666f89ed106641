# frozen_string_literal: true

require "json"

module Mordant
  module Cut
    # A cut as an OpenTimelineIO file of one video track.
    #
    # Source: OpenTimelineIO, serialized schema (Timeline.1, Track.1, Clip.1, Transition.1).
    module OpenTimeline
      # A clip in its place; frames. available: the whole file as [start, length]; dissolve:
      # frames of it that begin mixed with the clip before.
      Item = Struct.new(:name, :url, :start, :length, :available, :dissolve, :metadata, keyword_init: true)

      module_function

      # @param items [Array<Item>] in order
      # @param rate [Rational] frames a second
      # @param start [Integer] timecode of the first frame, in frames
      # @return [String] JSON
      def write(items, name:, rate:, start:)
        at = ->(frames) { {"OTIO_SCHEMA" => "RationalTime.1", "value" => frames.to_f, "rate" => rate.to_f} }
        range = ->(first, length) { {"OTIO_SCHEMA" => "TimeRange.1", "start_time" => at[first], "duration" => at[length]} }
        children = items.flat_map { |item| [item.dissolve.to_i.positive? ? transition(item, at) : nil, clip(item, range)].compact }
        track = {"OTIO_SCHEMA" => "Track.1", "name" => "V1", "kind" => "Video", "source_range" => nil, "effects" => [], "markers" => [], "metadata" => {}, "children" => children}
        stack = {"OTIO_SCHEMA" => "Stack.1", "name" => "tracks", "source_range" => nil, "effects" => [], "markers" => [], "metadata" => {}, "children" => [track]}
        JSON.pretty_generate("OTIO_SCHEMA" => "Timeline.1", "name" => name, "global_start_time" => at[start], "tracks" => stack, "metadata" => {})
      end

      # Centred schema offsets: all of the dissolve lies after the edit.
      def transition(item, at)
        {"OTIO_SCHEMA" => "Transition.1", "name" => "dissolve", "transition_type" => "SMPTE_Dissolve", "in_offset" => at[0], "out_offset" => at[item.dissolve], "metadata" => {}}
      end

      def clip(item, range)
        reference = {"OTIO_SCHEMA" => "ExternalReference.1", "target_url" => item.url, "available_range" => range[*item.available], "metadata" => {}}
        {"OTIO_SCHEMA" => "Clip.1", "name" => item.name, "source_range" => range[item.start, item.length], "media_reference" => reference, "effects" => [], "markers" => [], "metadata" => item.metadata || {}}
      end
    end
  end
end
