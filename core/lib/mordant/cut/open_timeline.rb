# frozen_string_literal: true

require "json"

module Mordant
  module Cut
    # A cut as an OpenTimelineIO file of one video track.
    #
    # Source: OpenTimelineIO, serialized schema (Timeline.1, Track.1, Clip.1, Transition.1, LinearTimeWarp.1, FreezeFrame.1,
    # ExternalReference.1, GeneratorReference.1,
    # Marker.2).
    module OpenTimeline
      module_function

      # @param shots [Array<Written>] in order
      # @param name [String]
      # @return [String] JSON
      def write(shots, name:)
        children = shots.each_with_index.flat_map { |shot, index| [*([transition(shot)] if shot.dissolve.positive? && index.positive?), clip(shot)] }
        track = {"OTIO_SCHEMA" => "Track.1", "name" => "V1", "kind" => "Video", **bare, "children" => children}
        stack = {"OTIO_SCHEMA" => "Stack.1", "name" => "tracks", **bare, "children" => [track]}
        JSON.pretty_generate("OTIO_SCHEMA" => "Timeline.1", "name" => name, "global_start_time" => time(shots.first.record_in.frames, shots.first.record_in.rate), "tracks" => stack, "metadata" => {})
      end

      def bare = {"source_range" => nil, "effects" => [], "markers" => [], "metadata" => {}}

      def time(frames, rate) = {"OTIO_SCHEMA" => "RationalTime.1", "value" => frames.to_f, "rate" => rate.to_f}

      def range(first, length, rate) = {"OTIO_SCHEMA" => "TimeRange.1", "start_time" => time(first, rate), "duration" => time(length, rate)}

      # Centred schema offsets: all of it lies after the edit.
      def transition(shot)
        rate = shot.record_in.rate
        kind = shot.wipe ? {"name" => "SMPTE wipe #{shot.wipe}", "transition_type" => "Custom_Transition", "metadata" => {"smpte_wipe" => shot.wipe}} : {"name" => "dissolve", "transition_type" => "SMPTE_Dissolve", "metadata" => {}}
        {"OTIO_SCHEMA" => "Transition.1", "in_offset" => time(0, rate), "out_offset" => time(shot.dissolve, rate), **kind}
      end

      # Its duration is that of the record; a time warp does not change it.
      def clip(shot)
        rate = shot.record_in.rate
        {"OTIO_SCHEMA" => "Clip.1", "name" => shot.name, "source_range" => range(shot.black ? 0 : shot.source_from.frames, shot.length, rate), "media_reference" => reference(shot), "effects" => warp(shot), "markers" => shot.markers.map { |one| marker(shot, one) },
         "metadata" => {**shot.metadata, **(shot.reel ? {"reel" => shot.reel} : {})}}
      end

      # Of one frame, counted as the clip's source range is.
      def marker(shot, one)
        first = shot.black ? 0 : shot.source_from.frames
        {"OTIO_SCHEMA" => "Marker.2", "name" => one.name, "comment" => one.words, "color" => "YELLOW", "marked_range" => range(first + one.offset, 1, shot.record_in.rate), "metadata" => {"mordant" => one.metadata}}
      end

      def reference(shot)
        return {"OTIO_SCHEMA" => "GeneratorReference.1", "name" => "black", "generator_kind" => "black", "parameters" => {}, "available_range" => nil, "metadata" => {}} if shot.black

        first, frames = shot.available
        {"OTIO_SCHEMA" => "ExternalReference.1", "target_url" => shot.url, "available_range" => first && range(first.frames, frames, first.rate), "metadata" => {}}
      end

      def warp(shot)
        return [] if shot.speed == 1.0 || shot.black
        return [{"OTIO_SCHEMA" => "FreezeFrame.1", "name" => "", "effect_name" => "FreezeFrame", "time_scalar" => 0.0, "metadata" => {}}] if shot.speed.zero?

        [{"OTIO_SCHEMA" => "LinearTimeWarp.1", "name" => "", "effect_name" => "LinearTimeWarp", "time_scalar" => shot.speed, "metadata" => {}}]
      end
    end
  end
end
