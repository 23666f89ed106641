# frozen_string_literal: true

module Server
  module Pictures
    # Recipes under a moving hand, shown before they are stored.
    module Trial
      module_function

      # @param document [Array<Hash>, nil] of recipe, an id, and document
      # @return [Hash{Integer => Mordant::Grade::Recipe}]
      # @raise [Mordant::ParameterError]
      def read(document)
        return {} unless document

        fine = document.is_a?(Array) && document.all? { |one| one.is_a?(Hash) && one["recipe"].is_a?(Integer) }
        raise Mordant::ParameterError.new(path: "trial", expected: "recipes by their ids, and their documents", found: document) unless fine

        document.to_h { |one| [one["recipe"], Mordant::Rendition.recipe(one["document"])] }
      end
    end
  end
end
