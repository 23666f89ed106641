# frozen_string_literal: true

module Mordant
  module CommandLine
    # Finds where the shots of a flat programme change.
    module Cuts
      USAGE = "cuts FILE                     cuts, dissolves and fades of a programme as JSON"

      module_function

      def call(arguments, output:, **)
        raise Usage, "cuts takes one file" unless arguments.size == 1

        probe = Media::Probe.new(arguments.first)
        facts = probe.facts
        changes = Cut::Changes.of(arguments.first, probe:)
        output.puts(JSON.generate("rate" => "#{facts.rate.numerator}/#{facts.rate.denominator}", "frames" => facts.frames, "changes" => changes.map(&:to_h)))
      end
    end
  end
end
