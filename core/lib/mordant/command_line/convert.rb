# frozen_string_literal: true

require "optparse"

module Mordant
  module CommandLine
    # Converts RGB triples between encodings, in double precision.
    module Convert
      USAGE = "convert --from ID --to ID [--rendering ID] [--from-range R] [--to-range R]\n" \
              "    JSON rows of three on standard input; R is full or legal\n" \
              "  mordant convert --batch       one JSON object a line: from, to, rendering, from_range, to_range, rgb;\n" \
              "    or an operation by itself: operation (#{Colour::Operation::ALL.keys.join(", ")}), from, inverse, rgb;\n" \
              "    or cdl (slope, offset, power, saturation), clamp, inverse, rgb"
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

        {rgb: rows(request["rgb"], request)}
      rescue Error => e
        {error: e.message}
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

      def check(rgb)
        refuse("an array of rows of three numbers", rgb) unless rgb.is_a?(Array)
        rgb.each_with_index do |row, index|
          next if row.is_a?(Array) && row.size == 3 && row.all? { |x| x.is_a?(Numeric) && x.to_f.finite? }

          raise ParameterError.new(path: "rgb[#{index}]", expected: "three finite numbers", found: row)
        end
      end

      def parse(text)
        JSON.parse(text)
      rescue JSON::ParserError => e
        refuse("JSON", e.message[0, 80])
      end

      def refuse(expected, found) = raise(ParameterError.new(path: "rgb", expected:, found:))
    end
  end
end
