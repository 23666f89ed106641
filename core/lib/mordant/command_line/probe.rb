# frozen_string_literal: true

module Mordant
  module CommandLine
    # With a file its facts; without one a probe that is computed, in the place of a real one.
    module Probe
      USAGE = "probe FILE                    facts as JSON\n  " \
              "mordant probe [--probe FILE] [--port N] [--before ADDRESS]\n" \
              "    a stand-in for a probe before a screen's stand-in, until it is stopped; docs/probe-protocol.md"

      module_function

      def call(arguments, output:, **)
        options, rest = CommandLine.options_and("probe", arguments, needed: [], others: %i[probe port before])
        raise Usage, "probe takes one file" if rest.size > 1
        raise Usage, "probe takes a media file, or stands in for a probe, not both" if rest.any? && options.any?

        rest.any? ? facts(rest.first, output) : stand_in(options, output)
      end

      def facts(path, output)
        facts = Media::Probe.call(path).to_h
        output.puts(JSON.pretty_generate(facts.merge(rate: facts[:rate].to_s)))
      end

      def stand_in(options, output)
        screen = Calibration::Line::Sight.new(options[:before] || "127.0.0.1:#{Calibration::Line::PORTS.first}")
        probe = Calibration::StandIn::Probe.new(options[:probe] ? Calibration::StandIn.description(options[:probe]) : {}, screen:, random: Random.new)
        Screen.serve(probe, port: Screen.port(options[:port]) || Calibration::Line::PORTS.first + 1, output:)
      end
    end
  end
end
