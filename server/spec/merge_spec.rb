# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe Server::Merge do
  def step(id, **rest) = {"id" => id, **rest.transform_keys(&:to_s)}

  def steps(*ids) = {"steps" => ids.map { |id| id.is_a?(Hash) ? id : step(id) }}

  def without(now, before, after) = described_class.without(now, before:, after:)

  it "takes back a change and leaves what others did beside it" do
    before, after = steps(step("a", parameters: {"exposure" => 0.0, "tint" => 1}), "b"), steps(step("a", parameters: {"exposure" => 1.0, "tint" => 1}), "b")
    now = steps(step("a", parameters: {"exposure" => 1.0, "tint" => 7, "gain" => [1, 1, 1, 1]}, strength: 0.5), "c", "b")
    expect(without(now, before, after)).to eq(steps(step("a", parameters: {"exposure" => 0.0, "tint" => 7, "gain" => [1, 1, 1, 1]}, strength: 0.5), "c", "b"))
    expect(without(after, before, after)).to eq(before)
    expect(without(now, now, now)).to eq(now)
  end

  it "takes out what was put in, and puts back what was taken out behind what it stood behind" do
    expect(without(steps("x", "a", "new", "b"), steps("a", "b"), steps("a", "new", "b"))).to eq(steps("x", "a", "b"))
    expect(without(steps("b", "a", "y"), steps("a", "gone", "also", "b"), steps("a", "b"))).to eq(steps("b", "a", "gone", "also", "y"))
    expect(without(steps("z"), steps("first", "b"), steps("b"))).to eq(steps("first", "z"))
    expect(without({"steps" => [], "name" => "n", "mine" => 1}, {"steps" => [], "old" => 2}, {"steps" => [], "mine" => 1})).to eq("steps" => [], "name" => "n", "old" => 2)
  end

  it "moves back what was moved among what others have put between" do
    expect(without(steps("c", "x", "a", "b"), steps("a", "b", "c"), steps("c", "a", "b"))).to eq(steps("a", "x", "b", "c"))
  end

  it "refuses where the same place was changed again" do
    moved = [steps("b", "a", "c"), steps("a", "b", "c"), steps("c", "a", "b")]
    value = [2.0, 0.0, 1.0].map { |exposure| steps(step("a", parameters: {"exposure" => exposure})) }
    curve = [[3], [1], [2]].map { |points| {"points" => points} }
    grown = [steps(step("new", strength: 0.5)), steps, steps("new")]
    gone = [steps, steps("a"), steps(step("a", strength: 0.5))]
    again = [steps(step("a", strength: 0.5)), steps("a"), steps]
    [moved, value, curve, grown, gone, again].each { |ages| expect { without(*ages) }.to raise_error(Server::Merge::Conflict) }
  end
end
