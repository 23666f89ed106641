# frozen_string_literal: true

require "optparse"

module Mordant
  module CommandLine
    # A recipe as a .cube file, with its measured error and the names of steps that no
    # table holds and that were left out.
    module Bake
      USAGE = "bake --recipe FILE --from ID --to ID [--rendering ID] [--size N] [--frame N] OUT.cube\n" \
              "    steps that move are left out, or taken as they are at a frame, from 0"

      module_function

      def call(arguments, output:, **)
        options = {"size" => 33}
        rest = OptionParser.new do |parser|
          %w[recipe from to rendering].each { |name| parser.on("--#{name} VALUE") { |value| options[name] = value } }
          %w[size frame].each { |name| parser.on("--#{name} N", Integer) { |number| options[name] = number } }
        end.parse(arguments)
        missing = %w[recipe from to].reject { |name| options[name] }
        raise Usage, "bake needs #{missing.map { |name| "--#{name}" }.join(", ")}" unless missing.empty?
        raise Usage, "bake needs one OUT.cube" unless rest.size == 1 && File.extname(rest.first).downcase == ".cube"

        recipe = Grade.read_recipe(options["recipe"])
        recipe = recipe.at(options["frame"]) if options["frame"]
        write(made(recipe.within_luts, options), rest.first, options, output, left_out: recipe.beyond_luts.map(&:name))
      end

      def made(recipe, options)
        plan = Mordant::Grade::Plan.new(recipe:, source: Colour.encoding(options["from"]).id)
        view = Mordant::Grade::View.new(encoding: options["to"], rendering: options["rendering"])
        Mordant::Grade::Bake.new(plan:, output: Mordant::Grade::Output.new(view:), size: options["size"])
      end

      def write(bake, path, options, output, left_out:)
        raise MediaError.new(path, "it exists; nothing is overwritten") if File.exist?(path)

        File.write(path, Lut::Cube.write(bake.table(title: [options["from"], options["to"], options["rendering"], *("frame #{options["frame"]}" if options["frame"])].compact.join(" "))))
        error = bake.error
        output.puts(JSON.generate(size: bake.size, from: options["from"], to: options["to"], worst: error.worst, mean: error.mean, left_out:, **(options["frame"] ? {frame: options["frame"]} : {})))
      end
    end
  end
end
