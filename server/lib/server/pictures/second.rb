# frozen_string_literal: true

module Server
  module Pictures
    # A reference, told by how it differs from the first: an object of frame, source,
    # washes and trial, each as in the first without it; or still or swatch, the id of one,
    # whose picture it then is; or programme, true: of the movie of the edit that lies under the cut.
    module Second
      KEYS = %w[frame source washes trial still swatch programme].freeze

      module_function

      # @param wish [Wish] the first
      # @param document [Hash]
      # @param path [String] for errors
      # @return [Wish]
      # @raise [Mordant::ParameterError]
      def of(wish, document, path)
        unless document.is_a?(Hash) && (document.keys - KEYS).empty?
          raise Mordant::ParameterError.new(path:, expected: "an object of #{KEYS.join(", ")}", found: document)
        end
        unless document.fetch("frame", 0).is_a?(Integer)
          raise Mordant::ParameterError.new(path: "#{path}.frame", expected: "a whole number", found: document["frame"])
        end
        other = document.slice("frame", "source", "washes").transform_keys(&:to_sym)
        other[:trial] = (wish.trial || {}).merge(Trial.read(document["trial"])) if document["trial"]
        other[:test] = nil if document.key?("frame")
        other[:still] = KeptPicture.of(document, path)
        other.update(programme(wish, other[:frame] || wish.frame)) if document["programme"] == true
        wish.with(**other)
      end

      # A finished one is shown as it is; one in a camera's encoding as that is shown.
      def programme(wish, frame)
        lone = Lone.programme(wish.cut, frame)
        scene = Mordant::Colour.encoding(wish.cut.reference_clip.source_encoding).scene?
        scene ? {cut: lone, source: true, test: nil} : {still: ProgrammePicture.new(lone), test: nil}
      end
    end
  end
end
