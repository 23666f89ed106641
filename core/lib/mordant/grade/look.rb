# frozen_string_literal: true

module Mordant
  module Grade
    # A look to start from: steps like any others, every number of which can be changed
    # afterwards. One JSON file each in core/looks, and in core/bundles those that change nothing until a step is switched on: label, about, steps, and the name of
    # a bundle where they are one.
    Look = Struct.new(:id, :label, :about, :steps, :bundles, keyword_init: true) do
      # @return [Array<Look>] by their labels
      def self.all = (@all ||= in_folder("looks"))

      # @return [Array<Look>] bundles of steps that are all off or neutral
      def self.bundles = (@bundles ||= in_folder("bundles"))

      def self.in_folder(name) = Dir[File.join(self::CORE, name, "*.json")].map { |path| read(path) }.sort_by(&:label).freeze
      private_class_method :in_folder

      # @param path [String]
      # @raise [ParameterError] of steps a recipe could not hold
      def self.read(path)
        document = JSON.parse(File.read(path))
        bundle = document["bundle"]&.then { |name| {"id" => "bundle", "name" => name} }
        steps = document.fetch("steps").each_with_index.map { |step, index| {"id" => index.to_s, **(bundle ? {"bundle" => bundle["id"]} : {}), **step} }
        checked = Recipe.new("steps" => steps, "bundles" => [bundle].compact)
        new(id: File.basename(path, ".json"), label: document.fetch("label"), about: document.fetch("about"), steps: checked.to_h["steps"], bundles: checked.to_h.fetch("bundles", []))
      end

      # @return [Hash] a recipe of it
      def document = {"steps" => steps, "bundles" => bundles}
    end
    Look::CORE = File.expand_path("../../..", __dir__)
  end
end
