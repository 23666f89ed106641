# frozen_string_literal: true

module Mordant
  # The folder of a person's own things: encodings/ holds descriptions of camera
  # encodings (Colour::EncodingFile), luts/ look-up tables in folders (Lut::Library), bands/ sets of colour bands (Scopes::BandSets).
  module Library
    class << self
      # @return [String] absolute; MORDANT_LIBRARY, or mordant in the person's own folder
      def root = @root || File.expand_path(ENV.fetch("MORDANT_LIBRARY", "~/mordant"))

      # @param folder [String, nil] nil: what the environment says
      attr_writer :root

      def encodings = File.join(root, "encodings")

      def luts = File.join(root, "luts")

      def bands = File.join(root, "bands")
    end
  end
end
