# frozen_string_literal: true

module Server
  # What is wrong with the database, in words that say what to do.
  module Trouble
    # Errors of the database.
    KINDS = [ActiveRecord::ActiveRecordError, PG::Error].freeze
    NOTE = "database.trouble" # in the var folder; what bin/start says while the database does not come up
    LOST = [ActiveRecord::ConnectionNotEstablished, ActiveRecord::ConnectionFailed, PG::ConnectionBad, PG::UnableToSend, PG::AdminShutdown, PG::CrashShutdown, PG::CannotConnectNow].freeze
    FULL = [PG::DiskFull].freeze

    module_function

    # @param error [Exception]
    # @return [String, nil] nil when it is nothing of this kind
    def of(error)
      causes = [error, *Enumerator.produce(error.cause) { |one| one&.cause || raise(StopIteration) }].compact
      return "the disk of the database is full, and this was not kept; make room on it (#{Settings.var_shown}) and do it again" if among?(causes, FULL)

      lost if among?(causes, LOST)
    end

    # @return [String] of a database that does not answer
    def lost
      said = File.read(File.join(Settings.var, NOTE))
      said.strip.empty? ? waiting : said.strip
    rescue Errno::ENOENT
      waiting
    end

    # @return [String] of another error
    def unknown(error) = "the database said: #{error.message.lines.first.to_s.strip[0, 200]}; the log in var/log says more"

    def waiting = "the database does not answer; it is being started again, and what you did last is kept here until it does"

    def among?(causes, kinds) = causes.any? { |cause| kinds.any? { |kind| cause.is_a?(kind) } }
  end
end
