# frozen_string_literal: true

require "nokogiri"

module Mordant
  # XML files in UTF-8, read without network, entities or document types, every element
  # knowing its line.
  class Markup
    DEEPEST = 64 # elements within each other
    TAG = %r{<(/?)[^\s<>/!?][^<>]*?(/?)>}n

    # @param path [String]
    # @param largest [Integer] bytes
    # @return [Markup]
    # @raise [FormatError, MediaError]
    def self.read(path, largest:)
      raise MediaError.new(path, "the file is not there") unless File.file?(path)
      raise MediaError.new(path, "larger than #{largest / 1024 / 1024} MB") if File.size(path) > largest

      parse(path, File.binread(path))
    end

    # @param path [String] for errors
    # @param text [String]
    def self.parse(path, text)
      bytes = text.b
      # in other encodings a document type would not be seen here
      raise FormatError.new(path:, line: 1, expected: "XML in UTF-8", found: bytes[0, 12]) if bytes.include?("\0") || !text.dup.force_encoding("UTF-8").valid_encoding? || other?(bytes)

      type = bytes.index("<!DOCTYPE")
      raise FormatError.new(path:, line: bytes[0, type].count("\n") + 1, expected: "XML without a document type", found: "<!DOCTYPE") if type

      refuse_depth(path, bytes)
      root = Nokogiri::XML(text) { |options| options.strict.nonet.huge }.root
      root ? new(path, root) : raise(FormatError.new(path:, line: 1, expected: "an XML element", found: "nothing"))
    rescue Nokogiri::XML::SyntaxError => e
      raise FormatError.new(path:, line: [e.line.to_i, 1].max, expected: "well-formed XML", found: e.message.sub(/\A\S+ ERROR: /, "").strip)
    end

    # @return [Boolean] its declaration names another encoding
    def self.other?(bytes) = bytes[/\A(?:\xEF\xBB\xBF)?<\?xml[^>]*?encoding\s*=\s*["']([^"']*)/n, 1]&.then { |name| !%w[utf-8 us-ascii ascii].include?(name.downcase) }

    # Elements within elements cost time that grows with their square.
    def self.refuse_depth(path, bytes)
      deep = 0
      bytes.scan(TAG) do |closing, alone|
        deep += 1 if closing.empty? && alone.empty?
        deep -= 1 unless closing.empty?
        raise FormatError.new(path:, line: $`.count("\n") + 1, expected: "at most #{DEEPEST} elements within each other", found: $&) if deep > DEEPEST
      end
    end
    private_class_method :other?, :refuse_depth

    attr_reader :path

    def initialize(path, element)
      @path, @element = path, element
    end

    def name = @element.name

    def line = @element.line

    # @return [String, nil] of an attribute
    def [](attribute) = @element[attribute]&.strip

    # @return [String] of the element, without space around it
    def text = @element.text.strip

    # @return [Array<Markup>]
    def children = @element.element_children.map { |one| Markup.new(path, one) }

    # @return [Markup, nil] the first child of that name, in any namespace
    def child(name) = children.find { |one| one.name == name }

    # @return [Array<Markup>] elements of that name at any depth
    def descendants(name) = @element.xpath(".//*[local-name()='#{name}']").map { |one| Markup.new(path, one) }

    # @return [Array<Float>] the element's text
    # @raise [FormatError] unless of that count and finite
    def numbers(count) = values(count).to_a

    # @return [Numo::DFloat] [count], the same of many
    # @raise [FormatError]
    def values(count)
      found = Numerals.read(text) || Numo::DFloat.cast(one_by_one)
      if found.size == count
        found
      else
        fault("#{count} #{(count == 1) ? "number" : "numbers"} in #{name}", found.size)
      end
    end

    # @return [Float]
    # @raise [FormatError]
    def number(attribute, default = nil)
      return default if self[attribute].nil? && default

      value = Float(self[attribute].to_s, exception: false)
      value&.finite? ? value : fault("#{attribute} of #{name}: a finite number", self[attribute])
    end

    # @return [String] one of some
    # @raise [FormatError]
    def choice(attribute, among, default = nil)
      value = self[attribute] || default
      among.include?(value) ? value : fault("#{attribute} of #{name}: #{among.join(", ")}", value)
    end

    def fault(expected, found) = raise(FormatError.new(path:, line:, expected:, found:))

    private

    # @return [Array<Float>]
    # @raise [FormatError] with the first word that is none
    def one_by_one
      words = text.split
      values = words.map { |word| Float(word, exception: false) }
      odd = values.index { |x| !x&.finite? }
      odd ? fault("finite numbers in #{name}", words[odd]) : values
    end
  end
end
