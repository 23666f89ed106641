# frozen_string_literal: true

module Mordant
  module CommandLine
    # Lists what recipes are made of.
    module Steps
      USAGE = "steps                         steps, contributors to mattes and their refinements: parameters, ranges, units, neutral values, as JSON\n" \
              "    --page: docs/recipes.md, made of the same"

      module_function

      def call(arguments, output:, **)
        return output.puts(Mordant::Grade::Handbook.text) if arguments == ["--page"]
        raise Usage, "steps takes no argument but --page" unless arguments.empty?

        output.puts(JSON.pretty_generate(steps: Mordant::Steps.all.map(&:to_h), contributors: Mordant::Matte.kinds.map(&:to_h), refinements: Mordant::Matte.refinements.map(&:to_h)))
      end
    end
  end
end
