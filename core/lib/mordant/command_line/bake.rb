# frozen_string_literal: true

require "optparse"

module Mordant
  module CommandLine
    # A recipe as a .cube file, with its measured error and the names of steps that no
    # table holds and that were left out.
    module Bake
      USAGE = "bake --recipe FILE --from ID --to ID [--rendering ID] [--size N] OUT.cube"

      module_function

      def call(arguments, output:, **)
        options = {"size" => 33}
        rest = OptionParser.new do |parser|
          %w[recipe from to rendering].each { |name| parser.on("--#{name} VALUE") { |value| options[name] = value } }
          parser.on("--size N", Integer) { |size| options["size"] = size }
        end.parse(arguments)
        missing = %w[recipe from to].reject { |name| options[name] }
        raise Usage, "bake needs #{missing.map { |name| "--#{name}" }.join(", ")}" unless missing.empty?
        raise Usage, "bake needs one OUT.cube" unless rest.size == 1 && File.extname(rest.first).downcase == ".cube"

        recipe = Grade.read_recipe(options["recipe"])
        write(made(recipe.within_luts, options), rest.first, options, output, left_out: recipe.beyond_luts.map(&:name))
      end

      def made(recipe, options)
        plan = Mordant::Grade::Plan.new(recipe:, source: Colour.encoding(options["from"]).id)
        view = Mordant::Grade::View.new(encoding: options["to"], rendering: options["rendering"])
        Mordant::Grade::Bake.new(plan:, output: Mordant::Grade::Output.new(view:), size: options["size"])
      end

      def write(bake, path, options, output, left_out:)
        raise MediaError.new(path, "it exists; nothing is overwritten") if File.exist?(path)

        File.write(path, Lut::Cube.write(bake.table(title: [options["from"], options["to"], options["rendering"]].compact.join(" "))))
        error = bake.error
        output.puts(JSON.generate(size: bake.size, from: options["from"], to: options["to"], worst: error.worst, mean: error.mean, left_out:))
      end
    end
  end
end
