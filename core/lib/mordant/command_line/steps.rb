# frozen_string_literal: true

module Mordant
  module CommandLine
    # Lists what recipes are made of.
    module Steps
      USAGE = "steps                         steps and contributors to mattes: parameters, ranges, units, neutral values, as JSON"

      module_function

      def call(arguments, output:, **)
        raise Usage, "steps takes no arguments" unless arguments.empty?

        output.puts(JSON.pretty_generate(steps: Mordant::Steps.all.map(&:to_h), contributors: Mordant::Matte.kinds.map(&:to_h)))
      end
    end
  end
end
