# frozen_string_literal: true

require "optparse"

module Mordant
  # bin/mordant: the core without server or database.
  #
  # A command is one file in command_line/ with USAGE and
  # +call(arguments, input:, output:)+. It raises Usage when it is called wrongly
  # and Mordant::Error when the input is at fault.
  module CommandLine
    DONE = 0
    INPUT_AT_FAULT = 1
    WRONG_USAGE = 2

    # How a command is called, said to somebody who called it otherwise.
    class Usage < StandardError; end

    COMMANDS = {"encodings" => :Encodings, "convert" => :Convert, "probe" => :Probe, "grade" => :Grade, "matte" => :Matte, "track" => :Track,
                "steps" => :Steps, "bake" => :Bake, "conform" => :Conform, "cuts" => :Cuts, "screen" => :Screen, "calibrate" => :Calibrate}.freeze

    module_function

    # @return [Integer] exit code
    def run(arguments, input: $stdin, output: $stdout, complaints: $stderr)
      name, *rest = arguments
      return help(output) if ["--help", "-h", "help"].include?(name)
      raise Usage, "no command #{name.inspect}" unless COMMANDS.key?(name)

      const_get(COMMANDS[name]).call(rest, input:, output:)
      DONE
    rescue Usage, OptionParser::ParseError => e
      complaints.puts("mordant: #{e.message}", "", usage)
      WRONG_USAGE
    rescue Error, SystemCallError => e
      complaints.puts("mordant: #{e.message}")
      INPUT_AT_FAULT
    end

    # Reads --name VALUE of some names, and IN and OUT.
    #
    # @param command [String]
    # @param needed [Array<Symbol>]
    # @return [Array(String, String, Hash{Symbol => String})]
    # @raise [Usage, OptionParser::ParseError]
    def pictures_and(command, arguments, needed:, others: [])
      options, rest = options_and(command, arguments, needed:, others:)
      raise Usage, "#{command} needs IN and OUT" unless rest.size == 2

      [*rest, options]
    end

    # Reads --name VALUE of some names.
    #
    # @return [Array(Hash{Symbol => String}, Array<String>)] those, and what else is said
    # @raise [Usage, OptionParser::ParseError]
    def options_and(command, arguments, needed:, others: [])
      options = {}
      rest = OptionParser.new do |parser|
        [*needed, *others].each { |name| parser.on("--#{name} VALUE") { |value| options[name] = value } }
      end.parse(arguments)
      missing = needed.reject { |name| options[name] }
      raise Usage, "#{command} needs #{missing.map { |name| "--#{name}" }.join(", ")}" unless missing.empty?
      [options, rest]
    end

    def help(output)
      output.puts(usage)
      DONE
    end

    def usage
      ["usage:", *COMMANDS.values.map { |name| "  mordant #{const_get(name)::USAGE}" },
        "", "exit codes: 0 done, 1 the input is at fault, 2 wrong usage"].join("\n")
    end
  end
end
