# frozen_string_literal: true

module Server
  # Reading requests and writing answers, for every route.
  module Requests
    DEEPEST = 60 # levels of a body

    # @return [Hash] the JSON body
    # @raise [Mordant::ParameterError] also of a text with a NUL, which PostgreSQL cannot hold
    def body_json
      text = request.body&.read.to_s.dup.force_encoding("UTF-8")
      raise Mordant::ParameterError.new(path: "body", expected: "JSON in UTF-8", found: "other bytes") unless text.valid_encoding?

      parsed = JSON.parse(text, max_nesting: DEEPEST)
      raise Mordant::ParameterError.new(path: "body", expected: "a JSON object", found: parsed) unless parsed.is_a?(Hash)
      raise Mordant::ParameterError.new(path: "body", expected: "texts without NUL", found: "\0") if nul?(parsed)

      parsed
    rescue JSON::ParserError, EncodingError => e
      raise Mordant::ParameterError.new(path: "body", expected: "JSON", found: readable(e.message)[0, 80])
    end

    # @param value [Object] as parsed from JSON
    def nul?(value)
      case value
      when String then value.include?("\0")
      when Array then value.any? { |one| nul?(one) }
      when Hash then value.any? { |key, one| nul?(key) || nul?(one) }
      end
    end

    # @param name [String] key that must hold a whole number
    def whole(body, name)
      value = body[name]
      return value if value.is_a?(Integer)

      raise Mordant::ParameterError.new(path: name, expected: "a whole number", found: value)
    end

    # @param name [String] key that may hold a whole number; null and none are none
    # @return [Integer, nil]
    def whole_or_none(body, name) = body[name].nil? ? nil : whole(body, name)

    # @return [Array<Integer>]
    def ids(body, name)
      value = body[name]
      return value if value.is_a?(Array) && value.all?(Integer)

      raise Mordant::ParameterError.new(path: name, expected: "a list of ids", found: value)
    end

    # @return [Array<Record>] in the order of the ids
    # @raise [Record::Missing] when one is not there
    def every(scope, wanted)
      found = scope.where(id: wanted).index_by(&:id)
      wanted.map { |id| found[id] || raise(Record::Missing, "there is no #{scope.model_name.element} #{id} here") }
    end

    def answer(value) = JSON.generate(value)

    def answer_error(status, error, **details)
      content_type :json
      halt status, readable({error: error.message, **details}).to_json
    end

    # @param value [Object] of texts that may have any bytes
    # @return [Object] the same of texts that JSON can hold
    def readable(value)
      case value
      when String then value.dup.force_encoding("UTF-8").scrub("?")
      when Array then value.map { |one| readable(one) }
      when Hash then value.transform_values { |one| readable(one) }
      when Float then value.finite? ? value : value.to_s
      else value
      end
    end
  end
end
