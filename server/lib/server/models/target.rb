# frozen_string_literal: true

module Server
  # A view with a name, one of a project's.
  Target = Struct.new(:id, :name, :view, keyword_init: true) do
    # @param document [Hash] id, name and what Mordant::Grade::View.from reads
    # @raise [Mordant::ParameterError]
    def self.from(document, path: "target")
      raise Mordant::ParameterError.new(path:, expected: "an object", found: document) unless document.is_a?(Hash)

      texts = {"id" => 40, "name" => 60}.each do |key, longest|
        next if document[key].is_a?(String) && document[key].strip.length.between?(1, longest)

        raise Mordant::ParameterError.new(path: "#{path}.#{key}", expected: "1 to #{longest} characters", found: document[key])
      end
      new(id: document["id"], name: document["name"].strip, view: Mordant::Grade::View.from(document.except(*texts.keys), path:))
    end

    def document = {"id" => id, "name" => name, **view.to_h.transform_keys(&:to_s)}.compact

    def to_h = {id:, name:, **view.to_h, label: view.to_s, scale: Mordant::Scopes::Scale.new(view).to_h}
  end
end
