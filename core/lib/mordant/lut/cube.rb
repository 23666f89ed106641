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
      # Rows are read many at once: a lattice of the most nodes has two million.
      BLOCK = 65_536 # bytes
      private_constant :BLOCK

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
        @path, @text, @bytes = path, text, text.b
        @domain = {"MIN" => [0.0] * 3, "MAX" => [1.0] * 3}
        @ranges = {}
        @sizes = {}
        @values, @count = [], 0 # of rows, one after another
      end

      # @return [Table]
      def table
        from = last = 0
        while from < @text.bytesize
          to = ending(from)
          last = block(@text.byteslice(from...to), last)
          from = to
        end
        fault(last, "LUT_1D_SIZE or LUT_3D_SIZE", "neither") if @sizes.empty?
        fault(last, "#{wanted} rows of three numbers", "end of file after #{@count}") if @count < wanted
        Table.new(title: @title, shaper:, lattice:)
      end

      private

      def wanted = @sizes.fetch("1D", 0) + @sizes.fetch("3D", 0)**3

      # @return [Integer] where a block ends that begins there, after a line's end
      def ending(from) = (@bytes.index("\n", [from + BLOCK, @bytes.size - 1].min) || @bytes.size - 1) + 1

      # @param last [Integer] lines before it
      # @return [Integer] lines with it
      def block(text, last)
        return last + text.count("\n") if rows(text)

        text.each_line.with_index(last + 1) do |whole, number|
          fault(number, "at most #{MOST_LINES} lines of #{LONGEST_LINE} bytes", whole) if number > MOST_LINES || whole.bytesize > LONGEST_LINE
          line = whole.strip
          take(line, number) unless line.empty? || line.start_with?("#")
          last = number
        end
        last
      end

      # Takes what is nothing but rows as almost all are written, with nothing wrong with them.
      def rows(text)
        return if @sizes.empty? || text.delete("-+.0-9eE") != "  \n" * (count = text.count("\n")) || @count + count > wanted

        values = Numerals.read(text) or return
        values.size == count * 3 && keep(values)
      end

      def keep(values)
        @count += values.size / 3
        @values << values
      end

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
        fault(number, "no more than #{wanted} rows", line) if @count == wanted
        keep(Numo::DFloat.cast(numbers(line, 3, number)))
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

      # @return [Numo::DFloat] of all rows
      def values
        @all ||= Numo::DFloat.zeros(@count * 3).tap do |all|
          @values.reduce(0) do |at, some|
            all[at...(at + some.size)] = some
            at + some.size
          end
        end
      end

      def shaper
        count = @sizes["1D"] or return

        Curve1d.new(values[0...(count * 3)].reshape(count, 3), domain: domain("1D"))
      end

      # After a shaper the lattice is read from 0 to 1 unless its own range is given.
      def lattice
        size = @sizes["3D"] or return

        own = (@sizes["1D"] && !@ranges["3D"]) ? [[0.0] * 3, [1.0] * 3] : domain("3D")
        Lattice.new(values[-(size**3 * 3)..].reshape(size**3, 3), size:, domain: own)
      end

      def fault(line, expected, found) = raise(FormatError.new(path: @path, line:, expected:, found:))
    end
  end
end
