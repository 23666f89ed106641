# frozen_string_literal: true

module Mordant
  module Deliver
    # The files of OpenEXR sequences, with what their attributes say.
    module ExrFiles
      # @param frame [Frame, Media::HalfPlanes] light, or codes that are told in the comments
      # @param facts [Media::FrameFacts]
      # @param depth [Symbol] see Media::EXR
      # @param compression [String]
      # @return [String]
      def self.bytes(frame, facts, depth:, compression:)
        encoding = Colour.encoding(frame.encoding)
        texts = {"reelName" => facts.reel.to_s, "comments" => encoding.label, "originalImage" => facts.source.to_s}.reject { |_, text| text.empty? }
        Media::EXR.new(primaries: encoding.primaries || Colour::Primaries::REC709, rate: facts.rate, timecode: facts.timecode, depth:,
          compression: compression.to_sym, attributes: texts).encode(frame)
      end
    end
  end
end
