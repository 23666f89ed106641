# frozen_string_literal: true

Mordant::LOADER.eager_load

# Benchmarks: one file a subject in this folder, each adding figures with
# +figure+. A figure's block returns the runs it took, in its unit.
module Bench
  RUNS = 7
  NOISE = 0.1 # share by which a figure may be worse than a kept one: machines are noisy
  Figure = Struct.new(:name, :unit, :about, :alone, :more, :block)

  @figures = []

  class << self
    # @param name [String] key in the JSON
    # @param unit [String]
    # @param alone [Boolean] in a process that has done nothing before, as memory is
    # @param more [Boolean] more of it is better
    def figure(name, unit, about, alone: false, more: false, &block)
      @figures << Figure.new(name, unit, about, alone, more, block)
    end

    # @return [Integer] exit code: 0 done, 1 worse than what was kept, 2 wrong usage
    def run(arguments)
      return tell if arguments.intersect?(%w[--help -h])

      json = arguments.delete("--json")
      kept = kept(arguments)
      unknown = arguments - @figures.map(&:name)
      return complain("no figure #{unknown.first}; there are #{@figures.map(&:name).join(", ")}") unless unknown.empty?

      chosen = arguments.empty? ? @figures : @figures.select { |figure| arguments.include?(figure.name) }
      medians = chosen.to_h { |figure| [figure.name, report(figure, json, kept, apart: figure.alone && chosen.size > 1)] }
      puts JSON.pretty_generate(medians) if json
      worse = chosen.select { |figure| kept[figure.name] && worse?(figure, kept[figure.name], medians[figure.name]) }
      warn("worse than what was kept: #{worse.map(&:name).join(", ")}") if worse.any?
      worse.empty? ? 0 : 1
    rescue SystemCallError, JSON::ParserError => e
      complain("what was kept cannot be read: #{e.message}; keep a run with --json > FILE")
    end

    # @param now [Float]
    # @param before [Float]
    # @return [Boolean] by more than noise
    def worse?(figure, before, now) = figure.more ? now < before * (1 - NOISE) : now > before * (1 + NOISE)

    # Each run in milliseconds, after one that is not counted.
    def milliseconds(runs = RUNS)
      yield
      Array.new(runs) do
        started = Process.clock_gettime(Process::CLOCK_MONOTONIC)
        yield
        (Process.clock_gettime(Process::CLOCK_MONOTONIC) - started) * 1000
      end
    end

    def median(runs) = runs.sort[runs.size / 2]

    private

    def tell
      puts "usage: bin/bench [NAME ...] [--json] [--against FILE]", "", *@figures.map { |figure| format("%-28s %-6s %s", figure.name, figure.unit, figure.about) }
      0
    end

    # @return [Hash{String => Float}] medians of --against FILE, which is a run with --json
    def kept(arguments)
      at = arguments.index("--against") or return {}
      _, path = arguments.slice!(at, 2)
      JSON.parse(File.read(path.to_s))
    end

    def report(figure, quiet, kept, apart:)
      runs = apart ? [elsewhere(figure)] : figure.block.call
      middle = median(runs).round(2)
      spread = "#{runs.min.round(2)}..#{runs.max.round(2)}"
      before = kept[figure.name]
      beside = format("%+.0f %%%s  ", (middle / before - 1) * 100, (", worse" if worse?(figure, before, middle))) if before
      puts format("%-28s %9.2f %-6s %-18s %s%s", figure.name, middle, figure.unit, spread, beside, figure.about) unless quiet
      middle
    end

    def elsewhere(figure)
      JSON.parse(IO.popen([RbConfig.ruby, $PROGRAM_NAME, figure.name, "--json"], &:read)).fetch(figure.name)
    end

    def complain(words)
      warn("bench: #{words}")
      2
    end
  end
end

Dir[File.join(__dir__, "*_bench.rb")].sort.each { |file| require file }
