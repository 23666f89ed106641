# frozen_string_literal: true

# Film: the chain of negative and print as a lattice, and the steps that make up a film look, exact.
module Bench
  module Film
    STEPS = [{"id" => "h", "kind" => "halation", "parameters" => {"amount" => 0.3, "colour" => [1, 0.35, 0.08]}}, {"id" => "b", "kind" => "bloom", "parameters" => {"amount" => 0.05}},
      {"id" => "g", "kind" => "grain", "parameters" => {"amount" => 1.0}}, {"id" => "e", "kind" => "emulsion", "parameters" => {"negative" => "petrel", "print" => "fulmar"}}, {"id" => "d", "kind" => "dyes", "parameters" => {"overall" => [1, 0, -1], "depth" => 0.3}}].freeze

    module_function

    def plan(steps) = Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new("steps" => steps), source: "acescct")

    # Another exposure each time, as a hand moves it.
    def bake
      steps = ->(stops) { [STEPS[3].merge("parameters" => STEPS[3]["parameters"].merge("exposure" => stops))] }
      output = Mordant::Grade::Output.for(Mordant::Grade::View.new(encoding: "rec709-bt1886", rendering: "sdr-video-1.0"))
      Bench.milliseconds(9) { Mordant::Grade::Bake.new(plan: plan(steps[rand / 10]), output:, size: 33).table }
    end

    def picture
      made = plan(STEPS)
      codes = Exact.codes(960, 540)
      Bench.milliseconds(5) { made.run(codes) }
    end

    def peak
      Exact.peak_rss { plan(STEPS).run(Exact.codes(3840, 2160)) }
    end
  end

  figure("emulsion_bake33_ms", "ms", "a negative and a print, with the view, as a lattice of 33 nodes") { Film.bake }
  figure("film_960x540_ms", "ms", "Halation, Bloom, Grain, Emulsion and Dyes, exact") { Film.picture }
  figure("film_uhd_peak_rss_mb", "MB", "peak memory of the same of a 3840x2160 frame", alone: true) { [Film.peak] }
end
