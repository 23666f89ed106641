# frozen_string_literal: true

module Mordant
  module Film
    # A negative or a print material as its file states it; docs/materials.md describes the file. Immutable.
    class Material
      VERSION = 1
      KINDS = %w[negative print].freeze
      LARGEST = 64 * 1024 # bytes of a file
      # Kind to what its layers may be: ranges of numbers.
      LAYER = {
        "negative" => {"base" => 0.0..1.5, "slope" => 0.3..1.2, "toe" => -4.0..0.0, "toe_width" => 0.02..1.0, "shoulder" => 0.3..4.5, "shoulder_width" => 0.02..1.0},
        "print" => {"base" => 0.0..0.5, "slope" => 1.0..5.0, "toe" => -2.0..1.0, "toe_width" => 0.02..1.0, "shoulder" => -1.0..3.0, "shoulder_width" => 0.02..1.0}
      }.freeze
      MATRICES = {"sensitivities" => [1.0, -1.0..2.0], "inhibition" => [0.0, -1.5..1.5], "absorptions" => [1.0, -1.0..2.0]}.freeze
      GRANULARITY = 0.0..50.0
      OPEN = {"negative" => %w[sensitivities inhibition absorptions granularity balance speed], "print" => %w[absorptions]}.freeze
      KEYS = %w[mordant_material kind name about layers].freeze
      BALANCES = %w[daylight tungsten].freeze

      attr_reader :id, :kind, :name, :about, :balance
      # @return [Array<Characteristic>] of the red, green and blue sensitive layers
      attr_reader :layers
      # @return [Array<Float>] their densities without exposure
      attr_reader :bases
      # @return [Array<Array<Float>>] 3x3: layer exposures from light, and densities from those of the layers
      attr_reader :sensitivities, :inhibition, :absorptions
      # @return [Float, nil] RMS granularity at density 1 through a 48 um aperture, times 1000
      attr_reader :granularity
      # @return [Integer, nil] exposure index
      attr_reader :speed

      # @param path [String] of a file
      # @return [Material]
      # @raise [MediaError] of one that is not there
      # @raise [FormatError] with line and reason
      def self.read(path)
        raise MediaError.new(File.basename(path), "this material is not in the library any more; put it back or choose another") unless File.file?(path)
        raise FormatError.new(path: File.basename(path), line: 1, expected: "at most #{LARGEST / 1024} KB", found: "#{File.size(path)} bytes") if File.size(path) > LARGEST

        parse(File.read(path, encoding: "UTF-8"), id: File.basename(path, ".json"), name: File.basename(path))
      end

      # @param text [String] JSON
      # @param id [String]
      # @param name [String] of the file, for errors
      # @raise [FormatError]
      def self.parse(text, id:, name: "#{id}.json")
        new(JSON.parse(text), id:)
      rescue JSON::ParserError => e
        raise FormatError.new(path: name, line: JsonLines.of_error(e, text), expected: "JSON", found: e.message[0, 80])
      rescue ParameterError => e
        raise FormatError.new(path: name, line: JsonLines.new(text).line(e.path), expected: "#{e.path}: #{e.expected}", found: e.found)
      end

      # @param document [Hash]
      # @raise [ParameterError]
      def initialize(document, id:)
        @id = id
        refuse("mordant_material", "a material of version #{VERSION}", document) unless document.is_a?(Hash) && document["mordant_material"] == VERSION
        @kind = document["kind"]
        refuse("kind", KINDS.join(" or "), kind) unless KINDS.include?(kind)
        unknown = (document.keys - KEYS - OPEN.fetch(kind)).first
        refuse(unknown, "only #{(KEYS + OPEN.fetch(kind)).join(", ")}", unknown) if unknown
        @name, @about = Checks.text(document["name"], "name"), document.fetch("about", "").to_s[0, 400]
        take_layers(document["layers"])
        @sensitivities, @inhibition, @absorptions = MATRICES.keys.map { |key| matrix(document, key) }
        take_facts(document)
        freeze
      end

      def to_h = {id:, kind:, name:, about:, balance:, speed:, granularity:}

      private

      def take_layers(list)
        refuse("layers", "3 layers: red, green, blue", list) unless list.is_a?(Array) && list.size == 3
        found = list.each_with_index.map { |layer, index| layer(layer, "layers[#{index}]") }
        @bases = found.map { |one| one.fetch("base") }.freeze
        @layers = found.map { |one| Characteristic.new(**one.except("base").transform_keys(&:to_sym)) }.freeze
      end

      def layer(document, path)
        wanted = LAYER.fetch(kind)
        refuse(path, "an object of #{wanted.keys.join(", ")}", document) unless document.is_a?(Hash) && document.keys.sort == wanted.keys.sort
        found = wanted.to_h { |key, range| [key, Checks.number(document[key], "#{path}.#{key}", range)] }
        refuse("#{path}.shoulder", "a shoulder beyond the toe, #{found["toe"]}", found["shoulder"]) if found["shoulder"] <= found["toe"]
        found
      end

      # Rows that sum to what keeps greys grey.
      def matrix(document, key)
        sum, range = MATRICES.fetch(key)
        rows = document.fetch(key) { return (sum.zero? ? Array.new(3) { [0.0] * 3 } : Pointwise::Matrix::IDENTITY) }
        refuse(key, "3 rows of 3 numbers", rows) unless rows.is_a?(Array) && rows.size == 3 && rows.all? { |row| row.is_a?(Array) && row.size == 3 }
        rows.each_with_index.map do |row, index|
          numbers = row.each_with_index.map { |value, at| Checks.number(value, "#{key}[#{index}][#{at}]", range) }
          refuse("#{key}[#{index}]", "a row that sums to #{sum.round}, so that greys stay", numbers) if (numbers.sum - sum).abs > 1e-6
          numbers
        end
      end

      def take_facts(document)
        @granularity = document["granularity"] && Checks.number(document["granularity"], "granularity", GRANULARITY)
        @speed = document["speed"]
        refuse("speed", "a whole exposure index", speed) if speed && !(speed.is_a?(Integer) && speed.between?(1, 20_000))
        @balance = document["balance"]
        refuse("balance", BALANCES.join(" or "), balance) unless balance.nil? || BALANCES.include?(balance)
      end

      def refuse(path, expected, found) = raise(ParameterError.new(path:, expected:, found:))
    end
  end
end
