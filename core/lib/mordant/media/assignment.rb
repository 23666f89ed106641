# frozen_string_literal: true

module Mordant
  module Media
    # Which encoding a clip is read with, by rules a person wrote and by what its file
    # declares; and why.
    #
    # A rule is a Hash of "field", "pattern" and "encoding". Patterns are compared
    # without case; * stands for anything, ? for one character, {a,b} for either. The
    # first rule that fits decides.
    class Assignment
      FIELDS = {
        "camera" => "the camera the file names", "folder" => "the folder it lies in", "codec" => "its codec",
        "declares" => "colour tags of the file, as primaries/transfer"
      }.freeze
      MOST = 100 # rules
      LONGEST = 200 # characters of a pattern

      # Transfer characteristics that leave no doubt. Many a camera tags its log footage
      # as bt709, so that tag decides nothing by itself.
      TAGGED = {"smpte2084" => "rec2100-pq", "arib-std-b67" => "rec2100-hlg-1000nit", "iec61966-2-1" => "srgb"}.freeze

      # @return [Array<Hash>]
      attr_reader :rules

      # @param rules [Array<Hash>]
      # @raise [ParameterError] naming the rule and the field
      def initialize(rules)
        fine = rules.is_a?(Array) && rules.size <= MOST
        raise ParameterError.new(path: "rules", expected: "a list of at most #{MOST} rules", found: rules) unless fine

        @rules = rules.each_with_index.map { |rule, index| checked(rule, "rules[#{index}]") }.freeze
        freeze
      end

      # @param facts [#[]] camera, folder, codec, primaries, transfer and encoding (declared), by name
      # @return [Array(String, String), nil] encoding id, and the reason in words
      def call(facts)
        by_rule(facts) || declared(facts)
      end

      private

      def by_rule(facts)
        rules.each_with_index do |rule, index|
          value = value_of(rule["field"], facts)
          next unless value && File.fnmatch(rule["pattern"], value, File::FNM_CASEFOLD | File::FNM_EXTGLOB)

          return [rule["encoding"], "rule #{index + 1}: #{rule["field"]} #{value}"]
        end
        nil
      end

      def declared(facts)
        return [facts["encoding"], "the file declares it"] if facts["encoding"]

        id = TAGGED[facts["transfer"]]
        [id, "the file is tagged #{facts["transfer"]}"] if id
      end

      def value_of(field, facts)
        return facts[field] unless field == "declares"

        tags = facts.values_at("primaries", "transfer")
        tags.compact.any? ? tags.map { |tag| tag || "unknown" }.join("/") : nil
      end

      def checked(rule, path)
        raise ParameterError.new(path:, expected: "an object with field, pattern and encoding", found: rule) unless rule.is_a?(Hash)

        field, pattern, encoding = rule.values_at("field", "pattern", "encoding")
        refuse(path, "field", FIELDS.keys.join(", "), field) unless FIELDS.key?(field)
        refuse(path, "pattern", "1 to #{LONGEST} characters", pattern) unless pattern.is_a?(String) && pattern.strip.length.between?(1, LONGEST)
        fits = encoding.is_a?(String) && Colour::Encoding.known?(encoding) && Colour.encoding(encoding).pictures?
        refuse(path, "encoding", "the id of an encoding of pictures", encoding) unless fits
        {"field" => field, "pattern" => pattern.strip, "encoding" => encoding}
      end

      def refuse(path, key, expected, found) = raise(ParameterError.new(path: "#{path}.#{key}", expected:, found:))
    end
  end
end
