# frozen_string_literal: true

module Mordant
  module Media
    # A run of numbered frames in one folder: name.0001.dpx and so on.
    #
    # As a path it stands as one file with the number's place between brackets:
    # "name.[0001-0024].dpx".
    class Sequence
      EXTENSIONS = %w[.png .tif .tiff .dpx].freeze
      NUMBERED = /\A(?<stem>.*?)(?<number>\d{3,10})(?<extension>\.[^.]+)\z/
      BRACKETED = /\A(?<stem>.*)\[(?<first>\d+)-(?<last>\d+)\](?<extension>\.[^.]+)\z/

      attr_reader :first, :last

      # @param path [String] in brackets
      # @return [Sequence, nil] nil for the path of anything else
      def self.parse(path)
        match = BRACKETED.match(File.basename(path)) or return

        new(folder: File.dirname(path), stem: match[:stem], extension: match[:extension],
          digits: match[:first].length, numbers: [match[:first].to_i, match[:last].to_i])
      end

      # @param pattern [String] with the place of the number as printf has it: "name.%04d.dpx"
      # @return [Sequence, nil] the frames there are; nil where there are none
      def self.find(pattern)
        match = /\A(?<stem>.*)%0?(?<digits>\d*)d(?<extension>\.[^.%]+)\z/.match(File.basename(pattern))
        return unless match && File.directory?(File.dirname(pattern))

        group(File.dirname(pattern), Dir.children(File.dirname(pattern))).first
          .find { |one| one.pattern == File.join(File.dirname(pattern), "#{match[:stem]}%0#{match[:digits]}d#{match[:extension]}") }
      end

      # @param names [Array<String>] files of one folder
      # @return [Array<Sequence>, Array<String>] the runs found, and what is left
      def self.group(folder, names)
        numbered, others = names.partition { |name| EXTENSIONS.include?(File.extname(name).downcase) && NUMBERED.match?(name) }
        runs = numbered.map { |name| NUMBERED.match(name) }
          .group_by { |match| [match[:stem], match[:extension], match[:number].length] }
        sequences = runs.map do |(stem, extension, digits), matches|
          new(folder:, stem:, extension:, digits:, numbers: matches.map { |match| match[:number].to_i })
        end
        [sequences, others]
      end

      def initialize(folder:, stem:, extension:, digits:, numbers:)
        @folder, @stem, @extension, @digits = folder, stem, extension, digits
        @first, @last = numbers.minmax
        freeze
      end

      def frames = last - first + 1

      # @return [Array<Integer>] numbers between first and last whose file is not there
      def missing = (first..last).reject { |number| File.file?(file(number)) }

      # @return [String] the path of one frame
      def file(number) = File.join(@folder, @stem + number.to_s.rjust(@digits, "0") + @extension)

      # @return [String] in brackets
      def path
        File.join(@folder, "#{@stem}[#{[first, last].map { |n| n.to_s.rjust(@digits, "0") }.join("-")}]#{@extension}")
      end

      # @return [String] as ffmpeg's image2 reader wants it
      def pattern = File.join(@folder, "#{@stem.gsub("%", "%%")}%0#{@digits}d#{@extension}")
    end
  end
end
