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

      # @param folder [String]
      # @param extension [String]
      # @return [Array<String>] files of that ending in it, in order; names are bytes, whatever they mean
      def files(folder, extension)
        names = Dir.children(folder).map(&:b).select { |name| name.end_with?(extension) && !name.start_with?(".") }
        names.sort.map { |name| File.join(folder, name.force_encoding("UTF-8")) }
      rescue Errno::ENOENT, Errno::ENOTDIR
        []
      end

      # @param text [String] bytes of a name
      # @return [String] UTF-8 for a person to read
      def shown(text) = text.dup.force_encoding("UTF-8").scrub("?")

      def encodings = File.join(root, "encodings")

      def luts = File.join(root, "luts")

      def bands = File.join(root, "bands")
    end
  end
end
