# frozen_string_literal: true

module Mordant
  module CommandLine
    # A screen that is computed, in the place of a real one.
    module Screen
      USAGE = "screen [--screen FILE] [--port N]\n" \
              "    a stand-in for a screen, until it is stopped; docs/probe-protocol.md"

      module_function

      def call(arguments, output:, **)
        options, rest = CommandLine.options_and("screen", arguments, needed: [], others: %i[screen port])
        raise Usage, "screen takes no files but --screen FILE" unless rest.empty?

        screen = Calibration::StandIn::Screen.new(options[:screen] ? Calibration::StandIn.description(options[:screen]) : {})
        serve(screen, port: port(options[:port]) || Calibration::Line::PORTS.first, output:)
      end

      def serve(device, port:, output:)
        server = Calibration::Line::Server.new(device, port:)
        output.puts("#{server.kind} #{device.name.inspect} at #{server.address}")
        output.flush
        %w[INT TERM].each { |name| trap(name) { exit(DONE) } }
        server.run
      end

      # @raise [Usage]
      def port(text)
        return unless text

        number = Integer(text, 10, exception: false)
        (number && (0..65_535).cover?(number)) ? number : raise(Usage, "#{text} is no port")
      end
    end
  end
end
