# frozen_string_literal: true

module Mordant
  module Cut
    # A shot as a list has it that is written, whichever format. reel: nil where there is none; name: of its clip; url: of
    # its file; source_in: Timecode of the frame that its first one shows; available: Timecode of the file's first frame and
    # frames of it, or nil; length: frames of record; record_in: Timecode; speed: frames of source for one of record;
    # dissolve, wipe: as of Timeline::Shot; black: no picture; cdl: a correction that goes along, or nil; metadata: Hash;
    # markers: what was said about frames of it.
    Written = Struct.new(:reel, :name, :url, :source_in, :available, :length, :record_in, :speed, :dissolve, :wipe, :black, :cdl, :metadata, :markers, keyword_init: true) do
      def initialize(speed: 1.0, dissolve: 0, black: false, metadata: {}, markers: [], **rest) = super

      # @return [Integer] frames of source
      def span = speed.zero? ? 1 : [(length * speed.abs).round, 1].max

      # What runs backwards is told by its ends in order, as lists do.
      #
      # @return [Timecode] of the earliest of its frames
      def source_from = speed.negative? ? source_in + (1 - span) : source_in
    end

    # offset: frames of record after the shot's first one; name, words: who said what; metadata: Hash.
    Written::Marker = Struct.new(:offset, :name, :words, :metadata, keyword_init: true)
  end
end
