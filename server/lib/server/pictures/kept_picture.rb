# frozen_string_literal: true

module Server
  module Pictures
    # The picture of a still or a swatch, to be compared with.
    class KeptPicture
      KEPT = 6 # as large as a screen shows them

      # @param document [Hash] perhaps with the id of a still or a swatch
      # @param path [String] for errors
      # @return [KeptPicture, nil]
      # @raise [Mordant::ParameterError, Record::Missing]
      def self.of(document, path)
        kind = %w[still swatch].find { |name| document[name] } or return
        raise Mordant::ParameterError.new(path: "#{path}.#{kind}", expected: "an id", found: document[kind]) unless document[kind].is_a?(Integer)

        row = ((kind == "still") ? Still : Swatch).fetch(document[kind])
        new(row.file, row.encoding)
      end

      def self.known = (@known ||= {})

      attr_reader :encoding

      def initialize(file, encoding)
        @file, @encoding = file, encoding
      end

      # @return [Mordant::Frame] within that raster
      # @raise [Mordant::MediaError]
      def frame(width, height, reduction: 1)
        raise Mordant::MediaError.new(File.basename(@file), "the picture is not there any more") unless File.exist?(@file)

        key = [@file, File.mtime(@file), width, height]
        known = self.class.known
        codes = known.delete(key) || Mordant::Media::Stills.fitted(@file, width:, height:)
        known[key] = codes
        known.shift while known.size > KEPT
        codes.reduce(reduction).frame(encoding:)
      end
    end
  end
end
