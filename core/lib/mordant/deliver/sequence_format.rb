# frozen_string_literal: true

module Mordant
  module Deliver
    # A folder of numbered files, one a frame. Descendants have bytes.
    class SequenceFormat < Format
      class << self
        def sequence? = true

        # @param frame [Frame] in the view's encoding
        # @param facts [Media::FrameFacts]
        # @param options [Hash{Symbol => String}] as chosen; the first values by default
        # @param dither [Dither, nil] for whole numbers
        # @return [String] the file
        def bytes(frame, facts, options: {}, dither: nil) = raise(NotImplementedError, "#{self} makes no files")
      end
    end
  end
end
