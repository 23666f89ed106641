# frozen_string_literal: true

require "psych"

module Mordant
  # A small YAML file whose every value knows its line, so that a fault can be
  # pointed at. Plain mappings, lists, texts and numbers; no aliases, no tags.
  class Outline
    LARGEST_FILE = 64 * 1024 # bytes
    DEEPEST = 12 # levels of brackets and of indentation

    # @param path [String]
    # @return [Outline] of a mapping
    # @raise [FormatError, MediaError]
    def self.read(path)
      raise MediaError.new(path, "the file is not there") unless File.file?(path)
      raise MediaError.new(path, "larger than #{LARGEST_FILE / 1024} kB") if File.size(path) > LARGEST_FILE

      text = File.read(path, encoding: "UTF-8")
      raise FormatError.new(path:, line: 1, expected: "UTF-8", found: text) unless text.valid_encoding?

      refuse_depth(path, text)
      new(path, Psych.parse(text, filename: path))
    rescue Psych::SyntaxError => e
      raise FormatError.new(path:, line: e.line, expected: "a mapping of names to values (YAML)", found: e.problem.to_s)
    end

    # Brackets within brackets cost the parser time that grows with their square.
    def self.refuse_depth(path, text)
      deep = 0
      text.each_line.with_index(1) do |line, number|
        line.each_char { |char| deep += {"[" => 1, "{" => 1, "]" => -1, "}" => -1}.fetch(char, 0) }
        raise FormatError.new(path:, line: number, expected: "at most #{DEEPEST} levels", found: line.strip) if deep > DEEPEST || line[/\A(?:\s*[-?:]\s)+/].to_s.count("-?:") > DEEPEST
      end
    end
    private_class_method :refuse_depth

    attr_reader :path

    # @param node [Psych::Nodes::Node]
    def initialize(path, node)
      @path = path
      root = node.is_a?(Psych::Nodes::Document) ? node.root : node
      @line = (root ? root.start_line : 0) + 1
      fault("a mapping of names to values", root ? "something else" : "nothing") unless root.is_a?(Psych::Nodes::Mapping)
      @values = root.children.each_slice(2).to_h do |key, value|
        fault("a name that is a plain text", "something else", key.start_line + 1) unless key.is_a?(Psych::Nodes::Scalar)
        fault("a value, no reference to another", "*#{value.anchor}", value.start_line + 1) if value.is_a?(Psych::Nodes::Alias)
        [key.value, value]
      end
    end

    # @param known [Array<String>]
    # @raise [FormatError] of a name that is not known
    def allow(*known)
      other = @values.find { |name, _| !known.include?(name) }
      fault("one of #{known.join(", ")}", other.first, other.last.start_line + 1) if other
    end

    def key?(name) = @values.key?(name)

    # @return [String] text of 1 to 200 characters
    def text(name, among: nil, pattern: nil, default: nil)
      return default if default && !key?(name)

      found = scalar(name, "a text")
      fine = found.length.between?(1, 200) && (among.nil? || among.include?(found)) && (pattern.nil? || found.match?(pattern))
      return found if fine

      fault("#{name}: #{among ? among.join(" or ") : "a text#{" of #{pattern.source}" if pattern}"}", found, line(name))
    end

    # @return [Float] finite
    def number(name, default: nil)
      return default if default && !key?(name)

      found = scalar(name, "a number")
      value = Float(found, exception: false)
      value&.finite? ? value : fault("#{name}: a finite number", found, line(name))
    end

    # @return [Array<Float>]
    def numbers(name, count)
      row(fetch(name, "#{count} numbers"), count) || fault("#{name}: #{count} finite numbers", "something else", line(name))
    end

    # @return [Array<Array<Float>>] rows of the same count
    def rows(name, count)
      node = fetch(name, "a list of rows")
      fault("#{name}: a list of rows of #{count} numbers", "something else", line(name)) unless node.is_a?(Psych::Nodes::Sequence)
      node.children.map { |one| row(one, count) || fault("#{count} finite numbers", "something else", one.start_line + 1) }
    end

    # @return [Outline] of a mapping within
    def within(name) = Outline.new(path, fetch(name, "a mapping"))

    def mapping?(name) = @values[name].is_a?(Psych::Nodes::Mapping)

    # @return [Integer]
    def line(name) = (@values[name]&.start_line || (@line - 1)) + 1

    def fault(expected, found, line = @line) = raise(FormatError.new(path:, line:, expected:, found:))

    private

    def fetch(name, expected) = @values[name] || fault("#{name}: #{expected}", "nothing of that name")

    def scalar(name, expected)
      node = fetch(name, expected)
      node.is_a?(Psych::Nodes::Scalar) ? node.value.strip : fault("#{name}: #{expected}", "something else", line(name))
    end

    def row(node, count)
      return unless node.is_a?(Psych::Nodes::Sequence) && node.children.size == count

      found = node.children.map { |one| one.is_a?(Psych::Nodes::Scalar) ? Float(one.value, exception: false) : nil }
      found if found.all? { |x| x&.finite? }
    end
  end
end
