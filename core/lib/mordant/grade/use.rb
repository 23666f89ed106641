# frozen_string_literal: true

module Mordant
  module Grade
    # What a shape that somebody has drawn can be for: a step like any other, with the shape in its matte. One JSON
    # file each in core/uses: label, about, step, shape (invert, and feather as a share of the
    # picture's height) and the contributors beside it.
    Use = Struct.new(:id, :label, :about, :step, :shape, :contributors, keyword_init: true) do
      # @return [Array<Use>] by their labels
      def self.all = (@all ||= Dir[File.join(self::FOLDER, "*.json")].map { |path| read(path) }.sort_by(&:label).freeze)

      # @param path [String]
      # @raise [ParameterError] of a step that a recipe could not hold
      def self.read(path)
        document = JSON.parse(File.read(path))
        contributors = document.fetch("contributors").each_with_index.map { |part, index| part.merge("id" => index.to_s) }
        checked = Recipe.new({"steps" => [document.fetch("step").merge("id" => "0", "matte" => {"contributors" => contributors})]}).to_h["steps"].first
        new(id: File.basename(path, ".json"), label: document.fetch("label"), about: document.fetch("about"), step: checked.except("matte"), shape: {"invert" => false, **document.fetch("shape")},
          contributors: checked["matte"]["contributors"])
      end
    end
    Use::FOLDER = File.expand_path("../../../uses", __dir__)
  end
end
