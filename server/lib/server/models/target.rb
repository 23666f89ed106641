# frozen_string_literal: true

module Server
  # A view with a name, one of a project's.
  Target = Struct.new(:id, :name, :view, keyword_init: true) do
    # @param document [Hash] id, name and what Mordant::Grade::View.from reads; of a rendition gamut, peak and black are enough
    # @param hdr [Mordant::Grade::View, nil] of the project's HDR target, of which renditions are made
    # @raise [Mordant::ParameterError]
    def self.from(document, path: "target", hdr: nil)
      Mordant::Checks.reject(path, "an object", document) unless document.is_a?(Hash)
      texts = {"id" => 40, "name" => 60}.each { |key, longest| Mordant::Checks.text(document[key], "#{path}.#{key}", longest) }
      rendition = document["rendition"]
      Mordant::Checks.reject("#{path}.rendition", "an HDR target beside it, in PQ or HLG, to be made of", rendition) if rendition && hdr.nil?

      if rendition.is_a?(Hash)
        document = document.merge(Mordant::Rendition::Aim.written(*rendition.values_at("gamut", "peak"), path: "#{path}.rendition")) if document["encoding"].nil?
        rendition = rendition.except("of", "target", "gamut")
      end
      new(id: document["id"], name: document["name"].strip, view: Mordant::Grade::View.from({**document.except(*texts.keys), "rendition" => rendition}.compact, leading: hdr, target: document["id"], path:))
    end

    # The first one leads, and is no rendition; renditions are made of the first HDR target among them.
    #
    # @param documents [Array<Hash>]
    # @return [Array<Target>]
    # @raise [Mordant::ParameterError]
    def self.list(documents, path: "targets")
      raise Mordant::ParameterError.new(path: "#{path}[0]", expected: "a target that is no rendition, as it leads", found: documents.first["name"]) if rendition?(documents.first)

      own = documents.each_with_index.reject { |document, _| rendition?(document) }.to_h { |document, index| [index, from(document, path: "#{path}[#{index}]")] }
      hdr = own.values.find(&:leads?)&.view
      documents.each_with_index.map { |document, index| own[index] || from(document, path: "#{path}[#{index}]", hdr:) }
    end

    def self.rendition?(document) = document.is_a?(Hash) && !document["rendition"].nil?
    private_class_method :rendition?

    # @return [Boolean] renditions can be made of it
    def leads? = Mordant::Rendition::Aim.leads?(view)

    # @return [Boolean] it is made of what the leading target shows
    def rendition? = !view.aim.nil?

    # As kept: what a rendition is made of is said by the HDR target.
    def document = {"id" => id, "name" => name, **view.document, **(rendition? ? {"rendition" => view.aim.to_h.except("of", "target")} : {})}

    def to_h = {id:, name:, **view.to_h.except(:rendition), rendition: view.aim && {peak: view.aim.peak, black: view.aim.black, gamut: Mordant::Rendition::Aim.gamut(view.encoding, view.limit)}, leads: leads?, label: view.to_s, scale: Mordant::Scopes::Scale.new(view).to_h}
  end
end
