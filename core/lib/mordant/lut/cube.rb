# frozen_string_literal: true

module Mordant
  module Lut
    # .cube text files: one-dimensional, three-dimensional, and both with the
    # curves first (a shaper).
    #
    # Keywords: TITLE, DOMAIN_MIN, DOMAIN_MAX, LUT_1D_SIZE, LUT_3D_SIZE, and
    # LUT_1D_INPUT_RANGE and LUT_3D_INPUT_RANGE of two numbers.
    class Cube
      LARGEST_FILE = 200 * 1024 * 1024 # bytes
      MOST_LINES = 3_000_000 # a lattice of the most nodes has 2.1 million
      LONGEST_LINE = 4096 # bytes

      # @param path [String]
      # @return [Table]
      # @raise [FormatError] with the line of the first fault; MediaError of a file that cannot be read
      def self.read(path)
        raise MediaError.new(path, "the file is not there") unless File.file?(path)
        raise MediaError.new(path, "larger than #{LARGEST_FILE / 1024 / 1024} MB") if File.size(path) > LARGEST_FILE

        new(path, File.read(path, encoding: "UTF-8").scrub).table
      end

      # @param table [Table]
      # @return [String]
      def self.write(table)
        lines = table.title ? ["TITLE \"#{table.title.delete("\"\n")}\""] : []
        {"1D" => table.shaper, "3D" => table.lattice}.each do |kind, part|
          next unless part

          lines << "LUT_#{kind}_SIZE #{part.size}"
          lines << "LUT_#{kind}_INPUT_RANGE #{number(part.domain[0][0])} #{number(part.domain[1][0])}" unless part.domain == [[0.0] * 3, [1.0] * 3]
        end
        [table.shaper, table.lattice].compact.each { |part| part.data.to_a.each { |row| lines << row.map { |x| number(x) }.join(" ") } }
        lines.join("\n") << "\n"
      end

      def self.number(x) = format("%.9g", x)

      def initialize(path, text)
        @path, @text = path, text
        @domain = {"MIN" => [0.0] * 3, "MAX" => [1.0] * 3}
        @ranges = {}
        @sizes = {}
        @rows = []
      end

      # @return [Table]
      def table
        last = 0
        @text.each_line.with_index(1) do |whole, number|
          fault(number, "at most #{MOST_LINES} lines of #{LONGEST_LINE} bytes", whole) if number > MOST_LINES || whole.bytesize > LONGEST_LINE
          line = whole.strip
          take(line, number) unless line.empty? || line.start_with?("#")
          last = number
        end
        fault(last, "LUT_1D_SIZE or LUT_3D_SIZE", "neither") if @sizes.empty?
        wanted = @sizes.fetch("1D", 0) + @sizes.fetch("3D", 0)**3
        fault(last, "#{wanted} rows of three numbers", "end of file after #{@rows.size}") if @rows.size < wanted
        Table.new(title: @title, shaper:, lattice:)
      end

      private

      def take(line, number)
        case line
        when /\ATITLE\s+"?([^"]*)"?\z/ then @title = $1
        when /\ADOMAIN_(MIN|MAX)\s+(.*)/ then @domain[$1] = numbers($2, 3, number)
        when /\ALUT_([13]D)_INPUT_RANGE\s+(.*)/ then @ranges[$1] = rising(numbers($2, 2, number), number)
        when /\ALUT_([13]D)_SIZE\s+(.*)/ then @sizes[$1] = size($1, $2, number)
        when /\A(?!nan|inf)[a-z_]/i then fault(number, "a keyword of this format", line)
        else row(line, number)
        end
      end

      def row(line, number)
        fault(number, "LUT_1D_SIZE or LUT_3D_SIZE before the rows", line) if @sizes.empty?
        wanted = @sizes.fetch("1D", 0) + @sizes.fetch("3D", 0)**3
        fault(number, "no more than #{wanted} rows", line) if @rows.size == wanted
        @rows << numbers(line, 3, number)
      end

      def size(kind, text, number)
        value = Integer(text, 10, exception: false)
        allowed = (kind == "1D") ? Curve1d::SIZES : Lattice::SIZES
        (value && allowed.cover?(value)) ? value : fault(number, "a size in #{allowed}", text)
      end

      def numbers(text, count, number)
        found = text.split.map { |word| Float(word, exception: false) }
        return found if found.size == count && found.all? { |x| x&.finite? }

        fault(number, "#{{2 => "two", 3 => "three"}[count]} finite numbers", text)
      end

      def rising(pair, number) = (pair[0] < pair[1]) ? pair : fault(number, "a range that rises", pair.join(" "))

      def domain(kind)
        low, high = @ranges.key?(kind) ? @ranges[kind].map { |x| [x] * 3 } : @domain.values_at("MIN", "MAX")
        (low.zip(high).all? { |a, b| a < b }) ? [low, high] : fault(1, "DOMAIN_MIN below DOMAIN_MAX", [low, high])
      end

      def shaper
        count = @sizes["1D"] or return

        Curve1d.new(Numo::DFloat.cast(@rows.first(count)), domain: domain("1D"))
      end

      # After a shaper the lattice is read from 0 to 1 unless its own range is given.
      def lattice
        size = @sizes["3D"] or return

        own = (@sizes["1D"] && !@ranges["3D"]) ? [[0.0] * 3, [1.0] * 3] : domain("3D")
        Lattice.new(Numo::DFloat.cast(@rows.last(size**3)), size:, domain: own)
      end

      def fault(line, expected, found) = raise(FormatError.new(path: @path, line:, expected:, found:))
    end
  end
end
