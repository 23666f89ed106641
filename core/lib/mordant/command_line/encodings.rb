# frozen_string_literal: true

module Mordant
  module CommandLine
    # Lists what conversions can name.
    module Encodings
      USAGE = "encodings                     ids of encodings and renderings, as JSON"

      module_function

      def call(arguments, output:, **)
        raise Usage, "encodings takes no arguments" unless arguments.empty?

        output.puts(JSON.pretty_generate(
          encodings: Colour::Encoding.all.map(&:to_h), renderings: Colour::Rendering.all.map(&:to_h)
        ))
      end
    end
  end
end
