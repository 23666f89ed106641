# frozen_string_literal: true

require "fileutils"

module Supervisor
  # Starts the database again when it has gone, for as long as it takes. Why it does not come
  # up stands in a note for the web processes, which show it on every screen.
  class DatabaseWatch
    PAUSES = [1, 2, 4, 8, 15].freeze # seconds between tries

    # @param cluster [Cluster]
    # @param note [String] file
    def initialize(cluster, note:)
      @cluster, @note = cluster, note
      @tries, @next = 0, 0.0
      FileUtils.rm_f(note)
    end

    # Looks once; to be called again and again.
    #
    # @return [Boolean] whether the database is there
    def call
      return true if @cluster.alive?
      return false if now < @next

      @tries += 1
      @next = now + PAUSES[[@tries, PAUSES.size].min - 1]
      warn("the database has ended; starting it again")
      start
    end

    private

    def start
      @cluster.start
      FileUtils.rm_f(@note)
      @tries = 0
      true
    rescue Trouble => e
      warn(e.message)
      write("the database does not start, and nothing can be kept until it does; it is tried again every #{PAUSES.last} s. #{e.message.gsub(/\s+/, " ")}")
      false
    end

    # Of a full disk there may be no room for it; the terminal has it.
    def write(words)
      File.write(@note, words)
    rescue SystemCallError => e
      warn(e.message)
    end

    def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)
  end
end
