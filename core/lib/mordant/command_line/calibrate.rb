# frozen_string_literal: true

module Mordant
  module CommandLine
    # A whole session with stand-ins: measures a screen, corrects it and measures it again.
    module Calibrate
      USAGE = "calibrate --screen FILE --probe FILE [--target ID] [--white d65|seen] [--size 17|33] [--range full|legal] [--fast] --lut OUT.cube --report OUT.json\n" \
              "    measures a screen's stand-in, corrects it, and measures it again; --fast counts the waiting instead of waiting"
      NEEDED = %i[screen probe lut report].freeze
      OTHERS = %i[target white size range].freeze

      module_function

      def call(arguments, **)
        fast = arguments.include?("--fast")
        options, rest = CommandLine.options_and("calibrate", arguments - ["--fast"], needed: NEEDED, others: OTHERS)
        raise Usage, "calibrate takes no other files" unless rest.empty?
        raise Usage, "--lut needs a file that ends in .cube" unless options[:lut].downcase.end_with?(".cube")

        session = session(options, fast ? Calibration::Clock::Counted.new : Calibration::Clock.new)
        report = session.run.to_h
        File.write(options[:lut], Lut::Cube.write(Lut::Table.new(title: "screen, #{session.settings.kind.label}", lattice: session.lattice)))
        File.write(options[:report], JSON.pretty_generate(report))
      end

      def session(options, clock)
        screen = Calibration::StandIn::Screen.new(Calibration::StandIn.description(options[:screen]), clock:)
        probe = Calibration::StandIn::Probe.new(Calibration::StandIn.description(options[:probe]), screen:, clock:)
        Calibration::Session.new(screen:, probe:, clock:, settings: Calibration::Settings.new(settings(options)))
      end

      def settings(options)
        given = options.slice(*OTHERS).transform_keys(&:to_s)
        given["size"] = Integer(given["size"], 10, exception: false) || given["size"] if given["size"]
        given
      end
    end
  end
end
