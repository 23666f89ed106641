# frozen_string_literal: true

module Mordant
  module Deliver
    module Formats
      # OpenEXR of half floats; of ACES2065-1 without compression it is an ACES image
      # container (SMPTE ST 2065-4).
      class ExrHalf < SequenceFormat
        named "exr-half", "OpenEXR, half float", extension: ".exr", bits: nil, options: {compression: %w[zip none]},
          about: "one file a frame; ACES2065-1 without compression is an ACES image container"

        def self.halves? = true

        def self.bytes(frame, facts, options: {}, **) = ExrFiles.bytes(frame, facts, depth: :half, compression: options.fetch(:compression) { self.options[:compression].first })
      end
    end
  end
end
