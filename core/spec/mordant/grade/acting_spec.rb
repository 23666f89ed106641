# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Grade::Acting do
  let(:source) { "acescct" }

  def recipe(*steps) = Mordant::Grade::Recipe.new("steps" => steps.map { |step| step.transform_keys(&:to_s) })

  # Greys at stops about mid grey.
  def greys(*stops)
    codes = stops.map { |stop| Mordant::Colour::WorkingSpace.default.code_at(stop) * 65_535 }
    Mordant::Media::Codes.new(Numo::UInt16.cast(Numo::NArray.vstack([Numo::DFloat[*codes]] * 3)), width: stops.size, height: 1)
  end

  def weights(recipe, id, codes, region = nil)
    described_class.new(recipe, id:, region:) { |part| Mordant::Grade::Plan.new(recipe: part, source:) }.weights(Mordant::Grade::Moment.of(codes)).to_a
  end

  let(:zones) { {id: "z", kind: "zones", parameters: {"exposure" => [0, 1, 0, 0, 0]}} }

  it "tells the pixels of a zone, whose weights share out every pixel" do
    codes = greys(-8, -3.5, 0, 2, 6)
    all = Mordant::Steps::Zones::NAMES.map { |name| weights(recipe(zones), "z", codes, name.to_s) }
    expect(all.map { |row| row.map { |x| x.round(3) } }).to eq([[1, 0, 0, 0, 0], [0, 1, 0, 0, 0], [0, 0, 1, 0, 0], [0, 0, 0, 1, 0], [0, 0, 0, 0, 1]])
    expect(weights(recipe(zones), "z", greys(-2.0), "shadows")[0]).to be_within(0.002).of(0.5)
  end

  it "follows limits that are moved, and what steps before do" do
    moved = zones.merge(parameters: {"limits" => [0, -1.5, 0, 0]})
    expect(weights(recipe(moved), "z", greys(-3.5), "shadows")[0]).to be_within(0.002).of(0.5)
    darker = {id: "b", kind: "balance", parameters: {"exposure" => -3.5}}
    expect(weights(recipe(darker, zones), "z", greys(0), "shadows")[0]).to be_within(0.002).of(1.0)
    expect(weights(recipe(zones, darker), "z", greys(0), "shadows")[0]).to be_within(0.002).of(0.0)
  end

  it "tells what any step changes, and nothing of one that changes nothing" do
    expect(weights(recipe(zones), "z", greys(-8, -3.5, 0))).to match([be < 0.01, 1.0, be < 0.01])
    expect(weights(recipe({id: "b", kind: "balance"}), "b", greys(-3, 0))).to eq([0.0, 0.0])
    expect(weights(recipe({id: "b", kind: "balance", parameters: {"gain" => [1, 1.5, 1, 1]}}), "b", greys(3))).to eq([1.0])
  end

  it "refuses a step or a region that is not there" do
    expect { weights(recipe(zones), "q", greys(0)) }.to raise_error(Mordant::ParameterError, /step: /)
    expect { weights(recipe(zones), "z", greys(0), "noon") }.to raise_error(Mordant::ParameterError, /region: expected blacks/)
  end
end
