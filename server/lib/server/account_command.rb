# frozen_string_literal: true

require "optparse"

module Server
  # bin/account: accounts from the command line.
  class AccountCommand
    HELP = <<~TEXT
      usage: bin/account list
             bin/account add NAME --role ROLE [--initials AB]
             bin/account role NAME ROLE
             bin/account password NAME
             bin/account sign-out NAME
             bin/account end NAME        nobody can sign in with it any more
             bin/account back NAME       one can again

      ROLE is one of #{Person::ROLES.join(", ")}; each may do what those before it may.
      A password is asked for, or read as one line where the input is no terminal.
    TEXT

    # @param input [IO]
    # @param output [IO]
    # @param errors [IO]
    def initialize(input: $stdin, output: $stdout, errors: $stderr)
      @input, @output, @errors = input, output, errors
    end

    # @param arguments [Array<String>]
    # @return [Integer] exit code: 0; 1 of what is refused; 2 of what is not understood
    def call(arguments)
      options = {}
      rest = OptionParser.new do |parser|
        parser.on("--role ROLE") { |role| options["role"] = role }
        parser.on("--initials TEXT") { |text| options["initials"] = text }
        parser.on("-h", "--help") { options["help"] = true }
      end.parse(arguments)
      return say(HELP) if options["help"] || rest.empty?

      act(rest, options) || usage
    rescue OptionParser::ParseError => e
      usage(e.message)
    rescue Mordant::Error => e
      @errors.puts("account: #{e.message}")
      1
    end

    private

    # @return [Integer, nil] nil of what is not understood
    def act(rest, options)
      case rest
      in ["list"] then say(Person.order(:name).map { |one| format("%-24s %-4s %s%s\n", one.name, one.initials, one.role, (", ended" if one.ended)) }.join)
      in ["add", name] then say("made an account for #{Person.made(options.merge("name" => name, "password" => password)).name}\n")
      in ["role", name, role] then change(name, "role" => role)
      in ["password", name] then change(name, "password" => password)
      in ["sign-out", name] then Person.named(name).sign_ins.delete_all && say("#{name} is signed out everywhere\n")
      in ["end", name] then change(name, "ended" => true)
      in ["back", name] then change(name, "ended" => false)
      else nil
      end
    end

    def change(name, **values)
      Person.named(name).change(values)
      say("#{name}: done\n")
    end

    # Asked for twice where somebody types it unseen.
    def password
      return @input.gets.to_s.chomp unless @input.tty?

      first, again = ["password: ", "once more: "].map { |words| @input.getpass(words) }
      raise Mordant::ParameterError.new(path: "password", expected: "the same twice", found: "two that differ") unless first == again

      first
    end

    def say(text) = @output.print(text).then { 0 }

    def usage(message = "not understood")
      @errors.puts("account: #{message}", HELP)
      2
    end
  end
end
