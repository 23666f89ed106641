# frozen_string_literal: true

module Server
  # A refusal as a person reads it: fields are named as screens name them, and what was found
  # is shown as it was given.
  module Spoken
    SINGULAR = {"outputs" => "output", "targets" => "target", "rules" => "rule", "input_rules" => "rule", "steps" => "step", "burns" => "burn-in", "bands" => "band",
                "points" => "point", "clips" => "clip", "shots" => "shot", "keys" => "key"}.freeze
    DROPPED = %w[document recipe output parameters].freeze
    LONGEST = 80 # characters of what was found

    module_function

    # @param error [Mordant::ParameterError]
    # @return [String] such as "output 6, width: expected 16 to 8192 pixels, found 4"
    def of(error)
      place = place(error.path)
      found = error.found.is_a?(String) ? error.found : error.found.to_json
      [place, "expected #{error.expected}, found #{found.to_s.empty? ? "nothing" : found[0, LONGEST]}"].reject(&:empty?).join(": ")
    end

    # @param path [String] such as "outputs[5].format"
    # @return [String] "output 6, format"
    def place(path)
      parts = path.to_s.split(".").flat_map { |part| part.scan(/\A[^\[]+|\[\d+\]/) }
      words = parts.each_with_object([]) do |part, list|
        number = part[/\A\[(\d+)\]\z/, 1]
        next list << part.tr("_", " ") unless number

        last = list.pop.to_s
        list << "#{SINGULAR.fetch(last.tr(" ", "_"), last)} #{number.to_i + 1}"
      end
      words.reject { |word| DROPPED.include?(word) }.join(", ")
    end
  end
end
