# frozen_string_literal: true

module Server
  # A view with a name, one of a project's.
  Target = Struct.new(:id, :name, :view, keyword_init: true) do
    # @param document [Hash] id, name and what Mordant::Grade::View.from reads
    # @param leading [Mordant::Grade::View, nil] of the project's first target, of one that may be a rendition
    # @raise [Mordant::ParameterError]
    def self.from(document, path: "target", leading: nil)
      raise Mordant::ParameterError.new(path:, expected: "an object", found: document) unless document.is_a?(Hash)

      texts = {"id" => 40, "name" => 60}.each do |key, longest|
        next if document[key].is_a?(String) && document[key].strip.length.between?(1, longest)

        raise Mordant::ParameterError.new(path: "#{path}.#{key}", expected: "1 to #{longest} characters", found: document[key])
      end
      rendition = document["rendition"]
      raise Mordant::ParameterError.new(path: "#{path}.rendition", expected: "none of the leading target, which renditions are made of", found: rendition) if rendition && leading.nil?

      rendition = rendition.except("of", "target", "gamut") if rendition.is_a?(Hash)
      new(id: document["id"], name: document["name"].strip, view: Mordant::Grade::View.from({**document.except(*texts.keys), "rendition" => rendition}.compact, leading:, target: document["id"], path:))
    end

    # @param documents [Array<Hash>] the first one leads
    # @return [Array<Target>]
    # @raise [Mordant::ParameterError]
    def self.list(documents, path: "targets")
      first, *others = documents.each_with_index.to_a
      lead = from(first.first, path: "#{path}[0]")
      [lead, *others.map { |document, index| from(document, path: "#{path}[#{index}]", leading: lead.view) }]
    end

    # @return [Boolean] it is made of what the leading target shows
    def rendition? = !view.aim.nil?

    # As kept: what a rendition is made of is said by the leading target.
    def document = {"id" => id, "name" => name, **view.document, **(rendition? ? {"rendition" => view.aim.to_h.except("of", "target")} : {})}

    def to_h = {id:, name:, **view.to_h.except(:rendition), rendition: view.aim && {peak: view.aim.peak, black: view.aim.black, gamut: Mordant::Rendition::Aim.gamut(view.encoding, view.limit)}, leads: Mordant::Rendition::Aim.leads?(view), label: view.to_s, scale: Mordant::Scopes::Scale.new(view).to_h}
  end
end
