# frozen_string_literal: true

module Mordant
  module Deliver
    # File names from tokens, and the root below which they stay.
    class Naming
      TOKENS = %w[project cut shot scene clip reel format encoding frame date].freeze
      LONGEST = 200 # characters of a part of a path

      # @param template [String] such as "{project}/{cut}/{shot}_{format}"
      # @raise [ParameterError] of unknown tokens, absolute paths and ways upward
      def initialize(template)
        @template = template.to_s.strip
        refuse("a name with tokens #{TOKENS.map { |t| "{#{t}}" }.join(" ")}", template) if @template.empty?
        unknown = @template.scan(/\{([^}]*)\}/).flatten - TOKENS
        refuse("tokens among #{TOKENS.join(", ")}", unknown.first) unless unknown.empty?
        refuse("a path below the delivery folder", template) if @template.start_with?("/", "~") || parts.include?("..")
        refuse("no empty folder names and no control characters", template) if parts.any?(&:empty?) || @template.match?(/[[:cntrl:]\\]/)
      end

      # @param values [Hash{Symbol => String}] of the tokens; what a path cannot hold becomes "_"
      # @return [String] relative path without extension
      def expand(values)
        parts.map do |part|
          name = part.gsub(/\{([^}]*)\}/) { clean(values[$1.to_sym]) }
          refuse("a name that is not empty or made of dots", name) if name.delete(".").strip.empty?
          name[0, LONGEST]
        end.join("/")
      end

      # @param root [String] the delivery folder
      # @param relative [String] from expand, with extension
      # @return [String] absolute path, not existing yet
      # @raise [ParameterError] when it would overwrite, or leads out of the root
      # @raise [MediaError] when the root is not there
      def self.place(root, relative)
        raise MediaError.new(root, "the delivery folder is not there; connect its disk, or make it again") unless File.directory?(root)

        base = File.realpath(root)
        path = File.expand_path(relative, base)
        known = path
        known = File.dirname(known) until File.exist?(known) || File.symlink?(known)
        inside = File.exist?(known) && (File.realpath(known) + "/").start_with?(base + "/")
        unless path.start_with?(base + "/") && inside
          raise ParameterError.new(path: "name", expected: "a path below the delivery folder", found: relative)
        end
        return path unless File.exist?(path) || File.symlink?(path)

        raise ParameterError.new(path: "name", expected: "a name not taken yet; nothing is overwritten", found: relative)
      end

      private

      def parts = @template.split("/", -1)

      def clean(value) = value.to_s.gsub(/[^\p{L}\p{N}._-]+/, "_").gsub(/\A[._]+|[._]+\z/, "").then { |t| t.empty? ? "none" : t }

      def refuse(expected, found) = raise(ParameterError.new(path: "name", expected:, found:))
    end
  end
end
