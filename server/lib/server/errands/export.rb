# frozen_string_literal: true

module Server
  module Errands
    # Writes a picture below the delivery folder.
    class Export < Picture
      # @raise [Mordant::Error]
      def initialize(cut, body)
        super
        @exporting = Pictures::StillExport.new(@wish, body["format"].to_s)
      end

      # @return [Hash] path, below the delivery folder
      # @raise [Mordant::Error]
      def call(_errand) = {path: @exporting.write}
    end
  end
end
