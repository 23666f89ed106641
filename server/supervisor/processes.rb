# frozen_string_literal: true

require "etc"
require "fileutils"
require "socket"
require_relative "door"
require_relative "environment"

module Supervisor
  # The web processes and the job workers of one database.
  class Processes
    PATIENCE = 60 # seconds until the first answer
    GRACE = 6 # seconds to end by themselves

    # It looks for jobs every second, and takes none before it can begin with it, as others may
    # be free for that.
    #
    # @param count [Integer] jobs at once
    # @return [Array<String>] command of a job process
    def self.worker(count) = ["bundle", "exec", "que", "-q", "default", "-w", count.to_s, "-i", "1", "--maximum-buffer-size", "0", "./server/worker.rb"]

    # @param environment [Hash] MORDANT_DATABASE, MORDANT_PORT, MORDANT_VAR
    # @param log [String] folder
    # @param workers [Integer] job processes
    # @param door [Door] where it is reached
    def initialize(environment:, log:, workers: 2, door: Door.new(port: environment.fetch("MORDANT_PORT", 0).to_i))
      @environment = ENVIRONMENT.merge(environment)
      @log, @workers, @door = log, workers, door
      @running = {}
      FileUtils.mkdir_p(log)
    end

    # @param arguments [Array<String>] of server/prepare.rb
    def prepare(*arguments)
      system(@environment, "bundle", "exec", "ruby", "server/prepare.rb", *arguments, chdir: ROOT) ||
        raise(Trouble, "it cannot begin like this; the lines above say why")
    end

    def start
      start_web
      @workers.times { |number| start_worker(number) }
    end

    def start_web
      launch("web", "bundle", "exec", "puma", "-C", "server/puma.rb", "server/config.ru", with: COMPILED)
      wait_for_answer
    end

    # @return [Integer] process id
    def start_worker(number)
      launch("worker-#{number}", "nice", "-n", "5", *Processes.worker(1))
    end

    # Screens and probes of the demo: their descriptions, and the ports where they listen. Probes stand before the screen one port below.
    STAND_INS = {"screen-desk" => ["screen", "--screen", "demo/screens/desk.json", 7311], "probe-desk" => ["probe", "--probe", "demo/screens/probe.json", 7312],
                 "screen-wall" => ["screen", "--screen", "demo/screens/wall.json", 7313], "probe-wall" => ["probe", "--probe", "demo/screens/probe.json", 7314]}.freeze

    # Those whose port is free: else another Mordant on this machine has them already.
    def start_stand_ins = STAND_INS.each { |name, (*, port)| start_stand_in(name) if free?(port) }

    # @return [Hash{String => Integer}] process ids by name
    attr_reader :running

    PAUSES = [1, 2, 4, 8, 16, 30].freeze # seconds before it is started again, by how often it died lately
    LATELY = 120 # seconds
    LOOK_EVERY = 0.25 # seconds
    MOST_DEATHS = 12 # lately, after which it is given up

    # Starts what died again, with a pause that grows while it goes on dying, until stopped.
    #
    # @yield now and then
    # @yieldreturn [Boolean] whether what died can be started again now
    # @raise [Trouble] of what will not stay up
    def watch
      @deaths = Hash.new { |all, name| all[name] = [] }
      @due = {} # when to start it again, by name
      loop do
        while (id = ended) do bury(id) end
        @due.select { |_, at| now >= at }.each_key { |name| @due.delete(name) && revive(name) } if yield
        sleep LOOK_EVERY
      end
    end

    def stop
      running.each_value { |id| signal("TERM", id) }
      deadline = now + GRACE
      sleep 0.05 while running.any? { |_, id| alive?(id) } && now < deadline
      running.each_value { |id| signal("KILL", id) if alive?(id) }
      running.clear
    end

    private

    # @return [Integer, nil]
    def ended
      Process.wait(-1, Process::WNOHANG)
    rescue Errno::ECHILD
      nil # none is left, and all are due
    end

    def bury(id)
      status = $? # rubocop:disable Style/SpecialGlobalVars
      name = running.key(id) or return
      running.delete(name)
      lately = @deaths[name].push(now).select! { |at| now - at < LATELY } || @deaths[name]
      raise Trouble, "#{name} has ended #{lately.size} times within two minutes and is given up; #{@log}/#{name}.log says why" if lately.size > MOST_DEATHS

      pause = PAUSES[[lately.size, PAUSES.size].min - 1]
      warn("#{name} ended (#{status}); starting it again in #{pause} s")
      @due[name] = now + pause
    end

    # A web server that dies while it starts is tried again as one that has died.
    def revive(name)
      return start_stand_in(name) if STAND_INS.key?(name)
      return start_worker(name[/\d+/].to_i) unless name == "web"

      start_web
    rescue Trouble => e
      warn(e.message)
    end

    def start_stand_in(name)
      *command, port = STAND_INS.fetch(name)
      before = ["--before", "127.0.0.1:#{port - 1}"] if command.first == "probe"
      launch(name, "bundle", "exec", "ruby", "bin/mordant", *command, "--port", port.to_s, *before)
    end

    def free?(port)
      TCPServer.open("127.0.0.1", port).close
      true
    rescue Errno::EADDRINUSE
      false
    end

    # Each in a group of its own, so that Ctrl-C reaches only us; it ends with us.
    #
    # @param with [Hash] what it alone is given
    def launch(name, *command, with: {})
      running[name] = spawn(@environment.merge(with), "setpriv", "--pdeathsig", "TERM", *command, :chdir => ROOT, :pgroup => true,
        %i[out err] => [File.join(@log, "#{name}.log"), "a"], :in => File::NULL)
    end

    # One that dies while it is waited for is left to #watch.
    def wait_for_answer
      deadline = now + PATIENCE
      until answers?
        if now > deadline || gone?(running["web"])
          lines = File.readlines(File.join(@log, "web.log")).last(6).join("  ")
          raise Trouble, "the web server did not start. Its log ends with:\n  #{lines}"
        end
        sleep 0.1
      end
    end

    def answers? = @door.answers?

    # Unlike #alive? it leaves the end of the process to whoever waits for it.
    def gone?(id)
      state = File.read("/proc/#{id}/stat")[/\) (\S)/, 1]
      state == "Z"
    rescue Errno::ENOENT, Errno::ESRCH
      true
    end

    def alive?(id)
      Process.wait(id, Process::WNOHANG).nil?
    rescue Errno::ECHILD
      false
    end

    def signal(name, id)
      Process.kill(name, -id)
    rescue Errno::ESRCH
      nil # it has ended
    end

    def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)
  end
end
