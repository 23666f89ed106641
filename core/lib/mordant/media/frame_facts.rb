# frozen_string_literal: true

module Mordant
  module Media
    # What a file says of a frame besides its picture.
    #
    # rate: frames a second; timecode: of the frame; name: of the file; source: name of the
    # file it was made from; number: from 0, of count frames; written: Time.
    FrameFacts = Struct.new(:rate, :timecode, :name, :source, :reel, :project, :number, :count, :written, keyword_init: true) do
      # @return [FrameFacts] the same but for some
      def with(**others) = FrameFacts.new(**to_h, **others)
    end
  end
end
