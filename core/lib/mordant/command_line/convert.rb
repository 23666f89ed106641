# frozen_string_literal: true

require "optparse"

module Mordant
  module CommandLine
    # Converts RGB triples between encodings, in double precision, and computes what renditions are made by.
    module Convert
      USAGE = "convert --from ID --to ID [--rendering ID] [--from-range R] [--to-range R]\n" \
              "    JSON rows of three on standard input; R is full or legal\n" \
              "  mordant convert --batch       one JSON object a line: from, to, rendering, from_range, to_range, rgb;\n" \
              "    or an operation by itself: operation (#{Colour::Operation::ALL.keys.join(", ")}), from, inverse, rgb;\n" \
              "    or cdl (slope, offset, power, saturation), clamp, inverse, rgb;\n" \
              "    or operation eetf (black, white, least, greatest in cd/m2), ictcp-pq or delta-e-itp, and values: rows of\n" \
              "    PQ codes, of linear BT.2020 in cd/m2, or of two of those"
      KEYS = %w[from to rendering from_range to_range].freeze

      module_function

      def call(arguments, input:, output:)
        options = {}
        rest = OptionParser.new do |parser|
          KEYS.each { |name| parser.on("--#{name.tr("_", "-")} ID") { |id| options[name] = id } }
          parser.on("--batch") { options["batch"] = true }
        end.parse(arguments)
        raise Usage, "unexpected #{rest.first}" unless rest.empty?
        return batch(input, output) if options["batch"]
        raise Usage, "convert needs --from and --to" unless options["from"] && options["to"]

        output.puts(JSON.generate(rows(parse(input.read), options)))
      end

      def batch(input, output)
        input.each_line do |line|
          next if line.strip.empty?

          output.puts(JSON.generate(answer(line)))
          output.flush
        end
      end

      def answer(line)
        request = parse(line)
        raise ParameterError.new(path: "line", expected: "an object", found: request) unless request.is_a?(Hash)

        part = Rendition::PARTS[request["operation"]]
        part ? {values: values(request, *part)} : {rgb: rows(request["rgb"], request)}
      rescue Error => e
        {error: e.message}
      end

      # @param width [Integer] numbers in a row
      # @param part [#call]
      def values(request, width, part)
        given = check(request["values"], path: "values", width:)
        return [] if given.empty?

        part.call(request, Numo::DFloat.cast(given).transpose.dup).transpose.to_a
      end

      def rows(rgb, options)
        values = check(rgb)
        chain = chain(options)
        return [] if values.empty?

        found = chain.exact(Numo::DFloat.cast(values).transpose.dup).transpose
        found.to_a.map { |row| row.map { |x| x.finite? ? x : refuse("values whose result is finite", rgb) } }
      end

      def chain(options)
        return Colour::Operation.chain(options["operation"], from: options["from"], inverse: options["inverse"] == true) if options["operation"]
        return cdl(options) if options["cdl"]

        Colour::Conversion.new(from: options["from"], to: options["to"], **options.slice(*KEYS).compact.transform_keys(&:to_sym)).chain
      end

      def cdl(options)
        numbers = options["cdl"]
        raise ParameterError.new(path: "cdl", expected: "an object", found: numbers) unless numbers.is_a?(Hash)

        made = Colour::CDL.new(**numbers.slice("slope", "offset", "power", "saturation").transform_keys(&:to_sym))
        clamp = options["clamp"] != false
        Pointwise::Chain.new((options["inverse"] == true) ? made.inverse_operations(clamp:) : made.operations(clamp:))
      end

      def check(rows, path: "rgb", width: 3)
        raise ParameterError.new(path:, expected: "an array of rows of #{COUNTS.fetch(width)}", found: rows) unless rows.is_a?(Array)

        rows.each_with_index do |row, index|
          next if row.is_a?(Array) && row.size == width && row.all? { |x| x.is_a?(Numeric) && x.to_f.finite? }

          raise ParameterError.new(path: "#{path}[#{index}]", expected: COUNTS.fetch(width).sub(" ", " finite "), found: row)
        end
      end
      COUNTS = {1 => "one number", 3 => "three numbers", 6 => "six numbers"}.freeze

      def parse(text)
        JSON.parse(text)
      rescue JSON::ParserError => e
        refuse("JSON", e.message[0, 80])
      end

      def refuse(expected, found) = raise(ParameterError.new(path: "rgb", expected:, found:))
    end
  end
end
