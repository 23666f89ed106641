# frozen_string_literal: true

require "json"

module Mordant
  module Grade
    # A kept grade as one open file: the PNG of the picture it made, which any program
    # shows, with the recipe and its names inside as a JSON text. docs/swatches.md
    # describes it.
    module SwatchFile
      KEYWORD = "mordant-swatch"
      VERSION = 1
      LARGEST = 4 * 1024 * 1024 # bytes of the text
      TEXTS = %w[name description folder].freeze

      module_function

      # @param png [String] the picture
      # @param swatch [Hash{String => Object}] name, description, folder, origin, encoding, steps, and spans and bundles where there are some
      # @return [String] the file
      def write(png, swatch)
        Media::PngText.put(png, KEYWORD, JSON.generate({"mordant_swatch" => VERSION}.merge(swatch)))
      end

      # @param bytes [String]
      # @return [Hash{String => Object}] as written; steps are checked
      # @raise [ParameterError]
      def read(bytes)
        width, height = Media::PngText.raster(bytes)
        refuse("file", "a picture of at most #{Media::Stills::MOST / 1_000_000} million pixels", "#{width}x#{height}") unless Media::Stills.holds?(width, height)

        text = Media::PngText.get(bytes, KEYWORD, limit: LARGEST) or refuse("file", "a PNG file with a swatch in it", "none; it is a picture alone")
        swatch = JSON.parse(text)
        refuse("mordant_swatch", "version #{VERSION}", swatch.is_a?(Hash) ? swatch["mordant_swatch"] : swatch) unless swatch.is_a?(Hash) && swatch["mordant_swatch"] == VERSION
        TEXTS.each { |key| refuse(key, "a text", swatch[key]) unless swatch.fetch(key, "").is_a?(String) }
        refuse("origin", "an object of texts", swatch["origin"]) unless swatch.fetch("origin", {}).then { |origin| origin.is_a?(Hash) && origin.values.all?(String) }
        swatch.merge(Recipe.new(swatch.slice(*Recipe::KEYS)).to_h)
      rescue JSON::ParserError => e
        refuse("file", "a swatch as JSON", e.message[0, 80])
      end

      def refuse(path, expected, found) = raise(ParameterError.new(path:, expected:, found:))
    end
  end
end
