# frozen_string_literal: true

require "spec_helper"
require_relative "../../support/mattes"

RSpec.describe "Linked mattes" do
  include Mattes

  let(:picture) do
    Numo::NArray.srand(9)
    Mordant::Frame.new(Numo::SFloat.new(3, 96 * 48).rand, width: 96, height: 48, encoding: "acescct")
  end

  def link(step, **more) = part("linked", step:, **more)

  def step(id, *parts, refinements: [], exposure: 1.0, name: id)
    matte = {"contributors" => parts.each_with_index.map { |one, index| {"id" => index.to_s, **one} }, "refinements" => refinements.each_with_index.map { |one, index| {"id" => index.to_s, **one} }}
    {"id" => id, "kind" => "balance", "name" => name, "parameters" => {"exposure" => exposure}, **(parts.empty? ? {} : {"matte" => matte})}
  end

  def recipe(*steps) = Mordant::Grade::Recipe.new({"steps" => steps})

  def acts(recipe, id, codes = picture)
    plans = Hash.new { |made, one| made[one] = Mordant::Grade::Plan.new(recipe: one, source: "acescct") }
    Mordant::Grade::Acting.new(recipe, id:, whole: true) { |one| plans[one] }.weights(Mordant::Grade::Moment.of(codes))
  end

  let(:sky) { part("key", hue: 210.0, hue_width: 90.0, lightness_low: 0.3) }
  let(:blur) { {"kind" => "blur", "parameters" => {"size" => 0.05}} }

  it "are those of another step, after its refinements or before, and follow at once" do
    made = recipe(step("a", sky, refinements: [blur]), step("b", link("a")), step("c", link("a", point: "contributors")))
    refined, plain = acts(made, "a"), acts(recipe(step("a", sky)), "a")
    expect(acts(made, "b")).to eq(refined)
    expect([acts(made, "c"), plain == refined]).to eq([plain, false])
    other = recipe(step("a", circle(0.2)), step("b", link("a")))
    expect(acts(other, "b")).to eq(acts(other, "a"))
    expect(Mordant::Grade::Links.within(made).entries[1].stamps).not_to eq(Mordant::Grade::Links.within(other).entries[1].stamps)
  end

  it "act in pictures as the matte itself does, on later and on earlier steps" do
    shape = circle(0.3)
    own = Mordant::Grade::Plan.new(recipe: recipe(step("a", shape), step("b", shape)), source: "acescct").apply(picture).rgb
    later = Mordant::Grade::Plan.new(recipe: recipe(step("a", shape), step("b", link("a"))), source: "acescct").apply(picture).rgb
    earlier = Mordant::Grade::Plan.new(recipe: recipe(step("a", link("b")), step("b", shape)), source: "acescct").apply(picture).rgb
    expect([later, earlier]).to eq([own, own])
  end

  it "look at what the linked step gets, not at what theirs does; and keys that are taken from the first step stay" do
    bright = step("x", exposure: 2.0)
    steady = sky.merge("parameters" => sky["parameters"].merge("taken" => "first"))
    expect(acts(recipe(step("a", sky), bright, step("b", link("a"))), "b")).to eq(acts(recipe(step("a", sky)), "a"))
    expect(acts(recipe(bright, step("a", sky)), "a")).not_to eq(acts(recipe(step("a", sky)), "a"))
    expect(acts(recipe(bright, step("a", steady)), "a")).to eq(acts(recipe(step("a", sky)), "a"))
  end

  it "give nothing where the linked step has no contributors" do
    expect(acts(recipe(step("a"), step("b", circle(0.3), link("a").merge("mode" => "intersect"))), "b").max).to eq(0.0)
  end

  it "are cropped where they come from, and then moved; neither changes the other" do
    round = step("a", circle(0.3))
    plain = acts(recipe(round, step("b", link("a"))), "b").reshape(48, 96)
    cropped = acts(recipe(round, step("b", link("a", crop: [0.5, 0, 0, 0]))), "b").reshape(48, 96)
    moved = acts(recipe(round, step("b", link("a", move: [0.25, 0.0]))), "b").reshape(48, 96)
    both = acts(recipe(round, step("b", link("a", crop: [0.5, 0, 0, 0], move: [0.25, 0.0]))), "b").reshape(48, 96)
    expect([cropped[true, 0...48].max, cropped[true, 48..] == plain[true, 48..]]).to eq([0.0, true])
    expect((moved[true, 12..] - plain[true, 0...84]).abs.max).to be < 1e-4
    expect((both[true, 12..] - cropped[true, 0...84]).abs.max).to be < 1e-4
    large = acts(recipe(round, step("b", link("a", scale: [2.0, 1.0]))), "b").reshape(48, 96)
    expect([large[24, 48 + 25], large[24, 48 + 31], large[24 + 13, 48], large[24 + 16, 48]]).to match([1, be < 0.1, be > 0.9, be < 0.1])
  end

  it "show no boundary of windows when they are moved" do
    made = recipe(step("a", sky, refinements: [blur]), step("b", link("a", move: [0.1, 0.07], turn: 20.0)))
    plan = Mordant::Grade::Plan.new(recipe: made, source: "acescct")
    moment = Mordant::Grade::Moment.of(picture)
    window = Mordant::Grade::Window.new(left: 31, top: 11, width: 40, height: 20)
    expect(plan.picture(moment.at(window)).rgb).to eq(window.cut(plan.picture(moment).rgb, moment.window))
  end

  it "are refused where they close a circle, with the way, and where a step is not there" do
    expect { recipe(step("a", link("b"), name: "Sky"), step("b", link("c"), name: "Face"), step("c", link("a"), name: "Lamp")) }
      .to raise_error(Mordant::ParameterError, /matte of Sky: expected links without a circle, found "?Sky → Face → Lamp → Sky/)
    expect { recipe(step("a", link("a"), name: "Sky")) }.to raise_error(Mordant::ParameterError, /Sky → Sky/)
    expect { recipe(step("a", link("b"), name: "Sky"), step("b", sky, name: "Face")) }.to raise_error(Mordant::ParameterError, /Sky → Face → Sky/) # Face looks at what Sky makes
    expect { recipe(step("a", link("b")), step("b", circle(0.2))) }.not_to raise_error
    expect { acts(recipe(step("a", link("q"))), "a") }.to raise_error(Mordant::ParameterError, /a step that is there to take the matte from, found "q"/)
  end

  it "are refused without their clip, shot or path" do
    {part("clip", clip: "7") => /matte clip 7/, part("linked", shot: "3", step: "a") => /step a of shot 3/}.each do |one, wanted|
      expect { acts(recipe(step("a", one)), "a") }.to raise_error(Mordant::ParameterError, wanted)
    end
    followed = circle(0.2).merge("path" => {"id" => 4, "from" => 0})
    expect { acts(recipe(step("a", followed)).at(0), "a") }.to raise_error(Mordant::ParameterError, /a path that has been tracked, found 4/)
  end

  it "give nothing until what they come from is chosen" do
    [part("linked"), part("clip")].each { |one| expect(acts(recipe(step("a", one)), "a").max).to eq(0.0) }
  end

  it "take one contributor alone, or those up to it" do
    made = recipe(step("a", circle(0.2, x: -0.5), circle(0.2, x: 0.5), circle(0.2, x: 0.5).merge("mode" => "subtract")))
    plan = Mordant::Grade::Plan.new(recipe: recipe, source: "acescct")
    shown = ->(**which) { Mordant::Grade::Acting.new(made, id: "a", **which) { plan }.weights(Mordant::Grade::Moment.of(picture)).reshape(48, 96).then { |plane| [plane[24, 24], plane[24, 72]] } }
    expect([shown[contributor: "2"], shown[contributor: "1", upto: true], shown[contributor: "2", upto: true]]).to eq([[0, 1], [1, 1], [1, 0]])
    expect { shown[contributor: "9"] }.to raise_error(Mordant::ParameterError, /contributor: expected one of the matte's/)
  end
end
