# frozen_string_literal: true

# A recipe of eight steps: exact, baked, and at 3840x2160.
module Bench
  module EightSteps
    STEPS = [
      ["balance", {"exposure" => 0.35, "temperature" => 6.0, "tint" => -2.0, "lift" => [0.01, 0, 0, 0.004], "gain" => [1.02, 1, 1, 1]}],
      ["balance", {"contrast" => 1.12, "pivot" => -0.2, "offset" => [-0.01, 0, 0, 0]}],
      ["cdl", {"slope" => [1.03, 1.0, 0.98], "offset" => [0.0, 0.002, 0.004], "power" => [1.0, 1.02, 0.99]}],
      ["balance", {"gamma" => [1.05, 1, 1, 0.98], "saturation" => 1.1}],
      ["balance", {"temperature" => -3.0, "gain" => [1.0, 1.02, 1.0, 0.99]}],
      ["cdl", {"saturation" => 0.95}],
      ["balance", {"exposure" => -0.2, "contrast" => 0.96, "saturation" => 1.05}],
      ["balance", {"lift" => [0.005, 0, 0, 0.002], "gamma" => [0.98, 1, 1, 1]}]
    ].freeze

    module_function

    # A new plan each time, every step a little changed, as a changed recipe needs one.
    def plan
      steps = STEPS.each_with_index.map do |(kind, parameters), index|
        moved = parameters.transform_values { |value| value.is_a?(Array) ? [value[0] + rand / 500, *value.drop(1)] : value + rand / 500 }
        {"id" => index.to_s, "kind" => kind, "parameters" => moved}
      end
      Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new("steps" => steps), source: "logc3-ei800-wg3")
    end

    def output = Exact.output

    def bake = Bench.milliseconds(21) { Mordant::Grade::Bake.new(plan:, output:, size: 33).samples }

    def exact(width, height)
      source = Exact.codes(width, height)
      Bench.milliseconds(11) { output.run(plan.run(source)) }
    end

    def peak
      Array.new(3) do
        Exact.peak_rss { output.run(plan.run(Exact.codes(3840, 2160))) }
      end
    end
  end

  figure("bake33_ms", "ms", "eight steps and the view as a lattice of 33, plan included") { EightSteps.bake }
  figure("exact_recipe_960x540_ms", "ms", "exact picture of eight steps, plan included, one core") { EightSteps.exact(960, 540) }
  figure("uhd_peak_rss_mb", "MB", "peak memory of a process making one 3840x2160 picture of eight steps", alone: true) { EightSteps.peak }
end
