# frozen_string_literal: true

module Mordant
  module Deliver
    module Formats
      # OpenEXR of 32-bit floats.
      class ExrFloat < SequenceFormat
        named "exr-float", "OpenEXR, 32-bit float", extension: ".exr", bits: nil, options: {compression: %w[zip none]}, about: "one file a frame"

        def self.bytes(frame, facts, options: {}, **) = ExrFiles.bytes(frame, facts, depth: :float, compression: options.fetch(:compression) { self.options[:compression].first })
      end
    end
  end
end
