# frozen_string_literal: true

module Mordant
  module Media
    # A run of numbered frames in one folder: name.0001.dpx and so on.
    #
    # As a path it stands as one file with the number's place between brackets:
    # "name.[0001-0024].dpx".
    class Sequence
      EXTENSIONS = %w[.png .tif .tiff .dpx .exr].freeze
      NUMBERED = /\A(?<stem>.*?)(?<number>\d{3,10})(?<extension>\.[^.]+)\z/
      BRACKETED = /\A(?<stem>.*)\[(?<first>\d{3,10})-(?<last>\d{3,10})\](?<extension>\.[^.]+)\z/
      # Files further apart than this belong to two runs.
      WIDEST_GAP = 10_000 # frames
      LONGEST = 1_000_000 # frames
      LARGEST_NUMBER = 2**31 - 1 # that ffmpeg counts

      attr_reader :first, :last

      # @param path [String] in brackets
      # @return [Sequence, nil] nil for the path of anything else, a file that has such a name too
      def self.parse(path)
        match = BRACKETED.match(File.basename(path).b) or return
        return if File.file?(path)

        new(folder: File.dirname(path).b, stem: match[:stem], extension: match[:extension],
          digits: match[:first].length, first: match[:first].to_i, last: match[:last].to_i)
      end

      # @param pattern [String] with the place of the number as printf has it: "name.%04d.dpx"
      # @return [Sequence, nil] the frames there are; nil where there are none
      def self.find(pattern)
        match = /\A(?<stem>.*)%0?(?<digits>\d*)d(?<extension>\.[^.%]+)\z/.match(File.basename(pattern).b)
        return unless match && File.directory?(File.dirname(pattern))

        group(File.dirname(pattern), Dir.children(File.dirname(pattern))).first
          .find { |one| one.like?(match[:stem], match[:digits].to_i, match[:extension]) }
      end

      # @param names [Array<String>] files of one folder
      # @return [Array<Sequence>, Array<String>] the runs found, and what is left
      def self.group(folder, names)
        # names are bytes, whatever they mean
        numbered, others = names.partition { |name| EXTENSIONS.include?(File.extname(name.b).downcase) && NUMBERED.match?(name.b) }
        alike = numbered.map { |name| NUMBERED.match(name.b) }.group_by { |match| [match[:stem], match[:extension], match[:number].length] }
        runs = alike.flat_map do |(stem, extension, digits), matches|
          matches.map { |match| match[:number].to_i }.sort.slice_when { |a, b| b - a > WIDEST_GAP }
            .map { |numbers| new(folder: folder.b, stem:, extension:, digits:, first: numbers.first, last: numbers.last) }
        end
        [runs, others]
      end

      def initialize(folder:, stem:, extension:, digits:, first:, last:)
        @folder, @stem, @extension, @digits = folder, stem, extension, digits
        @first, @last = first, last
      end

      def frames = last - first + 1

      # @return [String] what its files are called without number and ending; of bare numbers their folder
      def name = @stem.sub(/[._ -]+\z/n, "").then { |stem| stem.empty? ? File.basename(@folder) : stem }.dup.force_encoding("UTF-8").scrub("_")

      # @return [Array<Range>] numbers between first and last whose file is not there
      def missing
        edges = [first - 1, *numbers, last + 1]
        edges.each_cons(2).filter_map { |a, b| (a + 1)..(b - 1) if b > a + 1 }
      end

      # @return [Integer] frames that there are without a gap from a number on
      def present_from(number)
        at = numbers.bsearch_index { |one| one >= number } or return 0
        return 0 unless numbers[at] == number

        rest = numbers.drop(at)
        rest.each_index.find { |place| rest[place] != number + place } || rest.size
      end

      # @return [String] the path of one frame
      def file(number) = File.join(@folder, @stem + number.to_s.rjust(@digits, "0") + @extension)

      # @return [String, nil] the first one that there is
      def first_file = numbers.first && file(numbers.first)

      # @return [String, nil]
      def last_file = numbers.last && file(numbers.last)

      # @return [String] in brackets
      def path
        File.join(@folder, "#{@stem}[#{[first, last].map { |n| n.to_s.rjust(@digits, "0") }.join("-")}]#{@extension}")
      end

      # @return [String] as ffmpeg's image2 reader wants it
      def pattern = "#{File.join(@folder, @stem).gsub("%", "%%")}%0#{@digits}d#{@extension.gsub("%", "%%")}"

      # @return [Boolean] whether its files are those of a pattern
      def like?(stem, digits, extension) = [@stem, @extension] == [stem, extension] && [0, @digits].include?(digits)

      private

      # In order; of one look into the folder.
      def numbers
        @numbers ||= Dir.children(@folder).filter_map do |name|
          match = NUMBERED.match(name.b) or next
          number = match[:number].to_i
          number if [match[:stem], match[:extension], match[:number].length] == [@stem, @extension, @digits] && number.between?(first, last)
        end.sort
      rescue Errno::ENOENT, Errno::ENOTDIR
        @numbers = []
      end
    end
  end
end
