# frozen_string_literal: true

module Mordant
  module CommandLine
    # Facts of a media file.
    module ProbeFile
      USAGE = "probe FILE                    facts as JSON"

      module_function

      def call(arguments, output:, **)
        raise Usage, "probe takes one file" unless arguments.size == 1

        facts = Media::Probe.call(arguments.first).to_h
        output.puts(JSON.pretty_generate(facts.merge(rate: facts[:rate].to_s)))
      end
    end
  end
end
