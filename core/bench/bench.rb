# frozen_string_literal: true

Mordant::LOADER.eager_load

# Benchmarks: one file a subject in this folder, each adding figures with
# +figure+. A figure's block returns the runs it took, in its unit.
module Bench
  RUNS = 7
  Figure = Struct.new(:name, :unit, :about, :alone, :block)

  @figures = []

  class << self
    # @param name [String] key in the JSON
    # @param unit [String]
    # @param alone [Boolean] in a process that has done nothing before, as memory is
    def figure(name, unit, about, alone: false, &block)
      @figures << Figure.new(name, unit, about, alone, block)
    end

    # @return [Integer] exit code
    def run(arguments)
      json = arguments.delete("--json")
      unknown = arguments - @figures.map(&:name)
      return complain(unknown) unless unknown.empty?

      chosen = arguments.empty? ? @figures : @figures.select { |figure| arguments.include?(figure.name) }
      medians = chosen.to_h { |figure| [figure.name, report(figure, json, apart: figure.alone && chosen.size > 1)] }
      puts JSON.pretty_generate(medians) if json
      0
    end

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

    def report(figure, quiet, apart:)
      runs = apart ? [elsewhere(figure)] : figure.block.call
      middle = median(runs).round(2)
      spread = "#{runs.min.round(2)}..#{runs.max.round(2)}"
      puts format("%-28s %9.2f %-6s %-18s %s", figure.name, middle, figure.unit, spread, figure.about) unless quiet
      middle
    end

    def elsewhere(figure)
      JSON.parse(IO.popen([RbConfig.ruby, $PROGRAM_NAME, figure.name, "--json"], &:read)).fetch(figure.name)
    end

    def complain(unknown)
      warn("bench: no figure #{unknown.first}; there are #{@figures.map(&:name).join(", ")}")
      2
    end
  end
end

Dir[File.join(__dir__, "*_bench.rb")].sort.each { |file| require file }
