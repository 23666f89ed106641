# frozen_string_literal: true

module Server
  # A file or sequence that was taken in, or refused with a reason.
  class Clip < Record
    include Undoable

    KEPT = %w[encoding encoding_reason range].freeze

    belongs_to :project
    belongs_to :media_root

    # What a clip nobody has assigned is shown as, so that it can be looked at.
    UNASSIGNED = "rec709-bt1886"

    BY_HAND = "assigned by hand"

    scope :ready, -> { where(status: "ready") }

    def ready? = status == "ready"

    def assigned? = !encoding.nil?

    def by_hand? = encoding_reason == BY_HAND

    # @return [Hash] what rules of assignment look at
    def facts
      {"camera" => camera, "folder" => [media_root.label, File.dirname(path)].join("/").delete_suffix("/."), "codec" => codec,
       "primaries" => primaries, "transfer" => transfer, "encoding" => declared_encoding}
    end

    # @return [String] encoding id pictures are read with
    def source_encoding = encoding || UNASSIGNED

    def rate = Rational(rate_numerator, rate_denominator)

    # @return [String] absolute path; of a sequence, with its brackets
    def file
      folder, name = File.split(path)
      return media_root.resolve(path) unless Mordant::Media::Sequence.parse(name)

      File.join(media_root.resolve((folder == ".") ? "" : folder), name)
    end

    # @return [Mordant::Media::Reader]
    def reader = Mordant::Media::Reader.new(file, rate:, range:)

    # @return [Integer] frames since midnight of its first frame; 0 without timecode
    def start_frames
      return 0 unless start_timecode

      Mordant::Cut::Timecode.parse(start_timecode, rate).frames
    rescue Mordant::ParameterError
      0 # a timecode that does not fit the rate orders nothing
    end

    def to_h
      {id:, root: media_root_id, path:, name: File.basename(path), status:, reason:, width:, height:,
       rate: ready? ? rate.to_s : nil, frames:, start: start_timecode, reel:, codec:, pixel_format:, bit_depth:, range:, declared_range:,
       tags: [primaries, transfer, matrix].compact.join("/"), camera:, scene:, take:, encoding:, encoding_reason:}
    end
  end
end
