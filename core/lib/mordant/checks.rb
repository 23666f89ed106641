# frozen_string_literal: true

module Mordant
  # What documents and their parts are held to.
  module Checks
    module_function

    def held(path, document, keys)
      reject(path, "an object with #{keys.join(", ")}", document) unless document.is_a?(Hash)
      unknown = document.keys - keys
      reject(path, "only #{keys.join(", ")}", unknown.first) unless unknown.empty?
    end

    # @param longest [Integer] characters, without space around them
    # @return [String] as it is
    def text(value, path, longest = 80)
      return value.dup.freeze if value.is_a?(String) && value.strip.length.between?(1, longest)

      reject(path, "a text of 1 to #{longest} characters", value)
    end

    # @param known [Array<String>]
    # @return [String] one of them
    def choice(value, path, known) = known.include?(value) ? value : reject(path, known.join(", "), value)

    # @return [Float]
    def number(value, path, range)
      return value.to_f if value.is_a?(Numeric) && value.real? && range.cover?(value.to_f)

      reject(path, "a number in #{range}", value)
    end

    # @return [Boolean]
    def switch(value, path) = [true, false].include?(value) ? value : reject(path, "true or false", value)

    # @return [Class]
    def kind(kinds, id, path) = kinds.find { |one| one.id == id } || reject("#{path}.kind", "one of #{kinds.map(&:id).join(", ")}", id)

    # @param list [Object] as parsed from JSON
    # @return [Array]
    def list(list, path, most, what)
      reject(path, "a list of at most #{most} #{what}", list.is_a?(Array) ? "#{list.size} #{what}" : list) unless list.is_a?(Array) && list.size <= most
      list
    end

    # @param documents [Object] as parsed from JSON
    # @yieldparam document [Object]
    # @yieldparam path [String]
    # @yieldreturn [#id]
    # @return [Array<#id>] frozen, each id once
    # @raise [ParameterError]
    def named(documents, path, most, what)
      all = list(documents, path, most, what).each_with_index.map { |one, index| yield one, "#{path}[#{index}]" }
      twice = all.map(&:id).tally.find { |_, count| count > 1 }
      reject(path, "ids used once", twice.first) if twice
      all.freeze
    end

    def reject(path, expected, found) = raise(ParameterError.new(path:, expected:, found:))
  end
end
