# frozen_string_literal: true

require "digest"

module Mordant
  module Track
    # Where a part of a picture goes through a shot: a map for each of some frames that follow each other, in
    # heights of the picture from its middle. Immutable.
    #
    # As a document: {"kind", "first": frame, "centre": [x, y], "maps": [[eight numbers], ...],
    # "confidence": [...], "lost": {"frame", "why"} or nil}.
    class Path
      KEYS = %w[kind first centre maps confidence lost].freeze
      MOST = 200_000 # frames
      UNSURE = 0.7 # confidence below which a person had better look

      attr_reader :kind, :first, :centre, :confidence, :lost

      # @param document [Hash]
      # @raise [ParameterError]
      def initialize(document, path: "path")
        Checks.held(path, document, KEYS)
        @kind, @first, @centre, maps, @confidence, @lost = document.values_at(*KEYS)
        fine = Template::KINDS.key?(kind) && first.is_a?(Integer) && numbers?(centre, 2) && maps.is_a?(Array) && maps.size.between?(1, MOST) &&
          maps.all? { |map| numbers?(map, 8) } && numbers?(confidence, maps.size)
        Checks.reject(path, "a kind, the first frame, the centre, and maps of eight numbers with a confidence each", document) unless fine
        @maps = maps.map { |map| Map.new([*map.map(&:to_f), 1.0]) }.freeze
        @stamp = [Digest::SHA256.hexdigest([first, centre, maps].to_json)[0, 32]].freeze
        freeze
      end

      # @return [Range<Integer>] frames, with its last
      def span = first..(first + @maps.size - 1)

      # @param frame [Integer]
      # @return [Map] before its first and after its last frame as there
      def at(frame) = @maps[(frame - first).clamp(0, @maps.size - 1)]

      # @param frame [Integer]
      # @return [Hash{Symbol => Float}] what it does with the centre, see Map#near
      def motion(frame) = at(frame).near(*centre)

      # What was found from one of its frames on, in either direction, in place of what it has there.
      #
      # @param other [Path] that begins or ends at a frame of this one, and whose part lies there as this one has it
      # @param by [Map] what put the part right there
      # @return [Path]
      def joined(other, from, by: Map::NONE)
        here, there = by * at(from), other.at(from)
        frames = [span.begin, other.span.begin].min..[span.end, other.span.end].max
        rows = frames.map { |frame| other.span.cover?(frame) ? [other.at(frame) * there.inverse * here, other.sure(frame)] : [at(frame), sure(frame)] }
        maps, confidence = rows.transpose
        Path.new(to_h.merge("first" => frames.begin, "maps" => maps.map { |map| map.numbers.first(8) }, "confidence" => confidence, "lost" => other.lost))
      end

      # @param frames [Integer]
      # @return [Path] whose frames, and that it was lost at, are counted from so many earlier
      def counted_from(frames)
        frames.zero? ? self : Path.new(to_h.merge("first" => first + frames, "lost" => lost && lost.merge("frame" => lost["frame"] + frames)))
      end

      # @return [Float] confidence at a frame; nothing where it is not
      def sure(frame) = span.cover?(frame) ? confidence[frame - first] : 0.0

      # @return [Array<String>] for JSON, of what pictures depend on
      attr_reader :stamp

      def to_h = {"kind" => kind, "first" => first, "centre" => centre, "maps" => @maps.map { |map| map.numbers.first(8) }, "confidence" => confidence, "lost" => lost}

      private

      def numbers?(list, count) = list.is_a?(Array) && list.size == count && list.all? { |one| one.is_a?(Numeric) && one.real? && one.to_f.finite? }
    end
  end
end
