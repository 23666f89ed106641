# frozen_string_literal: true

require "spec_helper"

RSpec.describe "Recipes that were kept" do
  # Numbers that an earlier version of the engine made of the same recipe, whose mattes had no softness, names or
  # refinements of their own yet.
  it "make the pictures they made" do
    size = 96 * 54
    rgb = Numo::NArray.vstack(Array.new(3) { |channel| Numo::SFloat.cast(Array.new(size) { |index| ((index * 7919 + channel * 104_729) % 1009) / 1009.0 }) })
    ellipse = {"id" => "e", "kind" => "ellipse", "mode" => "add", "parameters" => {"centre" => [0.1, -0.05], "radii" => [0.4, 0.25], "turn" => 20.0, "softness" => 0.15}}
    lights = {"id" => "l", "kind" => "luminance", "mode" => "subtract", "parameters" => {"low" => 0.4, "high" => 0.9}}
    steps = [
      {"id" => "a", "kind" => "balance", "parameters" => {"exposure" => 0.7}, "matte" => {"contributors" => [ellipse, lights], "strength" => 0.8}},
      {"id" => "b", "kind" => "soften", "parameters" => {"size" => 0.03, "luma" => 0.6, "colour" => 0.3}, "matte" => {"contributors" => [{"id" => "l", "kind" => "luminance", "mode" => "add", "parameters" => {"low" => 0.3}}]}},
      {"id" => "c", "kind" => "sharpen", "parameters" => {"size" => 0.09, "luma" => 0.5}},
      {"id" => "d", "kind" => "cdl", "keys" => [{"frame" => 0, "parameters" => {"slope" => [1.1, 1, 0.9]}}, {"frame" => 10, "parameters" => {"slope" => [0.9, 1, 1.1]}}], "matte" => {"contributors" => [{"id" => "e", "kind" => "ellipse"}]}}
    ]
    made = Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new({"steps" => steps}), source: "acescct").at(4).apply(Mordant::Frame.new(rgb, width: 96, height: 54, encoding: "acescct")).rgb
    {[0, 0] => 0.155235961, [0, 2600] => 0.680265367, [1, 2650] => 0.854611397, [2, 3000] => 0.633317471, [1, 100] => 0.577692509}.each do |place, value|
      expect(made[*place]).to be_within(1e-6).of(value)
    end
  end
end
