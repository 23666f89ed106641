# frozen_string_literal: true

module Mordant
  module Grade
    # A look to start from: steps like any others, every number of which can be changed
    # afterwards. One JSON file each in core/looks: label, about and steps.
    Look = Struct.new(:id, :label, :about, :steps, keyword_init: true) do
      # @return [Array<Look>] by their labels
      def self.all = (@all ||= Dir[File.join(self::FOLDER, "*.json")].map { |path| read(path) }.sort_by(&:label).freeze)

      # @param path [String]
      # @raise [ParameterError] of steps a recipe could not hold
      def self.read(path)
        document = JSON.parse(File.read(path))
        checked = Recipe.new("steps" => document.fetch("steps").each_with_index.map { |step, index| step.merge("id" => index.to_s) })
        new(id: File.basename(path, ".json"), label: document.fetch("label"), about: document.fetch("about"), steps: checked.to_h["steps"])
      end
    end
    Look::FOLDER = File.expand_path("../../../looks", __dir__)
  end
end
