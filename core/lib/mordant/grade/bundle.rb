# frozen_string_literal: true

module Mordant
  module Grade
    # Neighbouring steps of a recipe kept together under a name: switched, given one strength, copied as one. Immutable.
    #
    # Its strength scales each of its steps in the step's own terms, see Steps::Step.scales: grain its spread, halation its share of
    # light, weave its distance; a step without such terms keeps so much of its change.
    class Bundle
      KEYS = %w[id name enabled strength].freeze
      MOST = 16 # of a recipe

      # @return [String]
      attr_reader :id, :name
      # @return [Float] 0.0..1.0
      attr_reader :strength

      # @param documents [Object] as parsed from JSON
      # @param path [String] for errors
      # @return [Array<Bundle>]
      # @raise [ParameterError]
      def self.list(documents, path: "bundles") = Checks.named(documents, path, MOST, "bundles") { |one, place| new(one, path: place) }

      # @param document [Hash] as parsed from JSON: id, and as far as wanted name, enabled, strength
      # @param path [String] for errors
      # @raise [ParameterError]
      def initialize(document, path: "bundle")
        Checks.held(path, document, KEYS)
        @id = Checks.text(document["id"], "#{path}.id")
        @name = document["name"] ? Checks.text(document["name"], "#{path}.name") : "bundle"
        @enabled = Checks.switch(document.fetch("enabled", true), "#{path}.enabled")
        @strength = Checks.number(document.fetch("strength", 1.0), "#{path}.strength", 0.0..1.0)
        freeze
      end

      def enabled? = @enabled

      # Whether anything of it reaches a picture.
      def acts? = enabled? && strength.positive?

      def to_h = {"id" => id, "name" => name, "enabled" => enabled?, "strength" => strength}
    end
  end
end
