# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Grade::AutoBalance do
  let(:source) { "logc3-ei800-wg3" }
  let(:before) { Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new("steps" => []), source:) }

  # Greys from darkest to brightest, in stops about mid grey, under a cast in stops.
  def greys(stops, cast: [0, 0, 0])
    light = Numo::DFloat[*stops.map { |stop| 0.18 * 2.0**stop }]
    ap1 = Numo::NArray.vstack(cast.map { |off| light * 2.0**off })
    codes = Mordant::Colour::Conversion.new(from: "acescg", to: source).chain.exact(ap1)
    Mordant::Media::Codes.new(Numo::UInt16.cast((codes * 65_535 + 0.5).clip(0, 65_535)), width: stops.size, height: 1)
  end

  def found(...) = described_class.new(greys(...), before:)

  def ramp(low, high, count = 1000) = Array.new(count) { |n| low + (high - low) * n / (count - 1.0) }

  it "brings white to its place, up or down, within its reach" do
    expect(found(ramp(-4.5, 3.0)).exposure).to be_within(0.05).of(0.0)
    expect(found(ramp(-6.0, 1.5)).exposure).to be_within(0.05).of(1.5)
    expect(found(ramp(-3.0, 4.2)).exposure).to be_within(0.05).of(-1.2)
    expect(found(ramp(-12.0, -4.0)).exposure).to eq(3.0)
  end

  it "takes lifted black down by contrast, and leaves deep black" do
    expect(found(ramp(-3.75, 3.0)).contrast).to be_within(0.03).of(1.2)
    expect(found(ramp(-1.0, 3.0)).contrast).to eq(1.3)
    expect(found(ramp(-7.0, 3.0)).contrast).to eq(1.0)
  end

  it "does not take a lamp for white" do
    lamp = ramp(-5, 2.0, 990) + [6.0] * 10
    expect(found(lamp).exposure).to be_within(0.1).of(1.0)
  end

  it "takes most of a slight cast away, and believes a strong one less" do
    slight = found(ramp(-5, 3), cast: [0.05, 0, -0.05])
    expect(slight.temperature).to be_within(0.6).of(-5.0 * Math.exp(-0.01 / 0.18))
    expect(slight.tint).to be_within(0.3).of(0.0)
    expect(found(ramp(-5, 3), cast: [0.6, 0, -0.6]).temperature.abs).to be < 1.0
    expect(found(ramp(-5, 3)).to_h.values_at("temperature", "tint")).to all(be_within(0.1).of(0.0))
  end

  it "gives numbers an ordinary Balance takes, and refuses a picture without light" do
    expect(Mordant::Steps::Balance.new(found(ramp(-5, 3)).to_h).contrast).to be >= 1.0
    expect { found([-30.0] * 20) }.to raise_error(Mordant::ParameterError, /with light in it/)
  end

  # What the demo production's cameras did wrong is written down in its manifest.
  describe "on the demo production" do
    let(:manifest) { JSON.parse(File.read(File.expand_path("../../../../demo/manifest.json", __dir__))) }

    # Light of a grey card as the camera saw it, in the working space.
    def card(shot)
      encoding = Mordant::Colour.encoding(shot["encoding"])
      camera = encoding.transfer.decode(Mordant::Colour::Conversion.new(from: "acescg", to: encoding.id).chain.exact(Numo::DFloat[[0.18], [0.18], [0.18]]))
      wrong = Numo::DFloat[*shot["truth"]["white"]].reshape(3, 1) * 2.0**shot["truth"]["exposure"]
      Mordant::Colour::Conversion.new(from: encoding.id, to: "acescg").chain.exact(encoding.transfer.encode(camera * wrong)).to_a.flatten
    end

    # Degrees between a light and grey.
    def angle(light) = Math.acos((light.sum / Math.sqrt(3 * light.sum { |x| x * x })).clamp(-1, 1)) * 180 / Math::PI

    def balanced(light, found)
      warm, fresh = [found.temperature, found.tint].map { |points| points * 0.02 }
      light.zip([warm / 2 - fresh / 3, fresh * 2 / 3, -warm / 2 - fresh / 3]).map { |x, stops| x * 2.0**stops }
    end

    def errors
      manifest["shots"].map do |shot|
        reader = Mordant::Media::Reader.new(File.expand_path("../../../../demo/media/#{shot["clip"]}", __dir__), rate: 24r, range: "legal")
        codes = reader.frame(shot["in"] + shot["for"] / 2, width: 240, height: 135)
        plan = Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new("steps" => []), source: shot["encoding"])
        found = described_class.new(codes, before: plan)
        [(found.exposure + shot["truth"]["exposure"]).abs, angle(balanced(card(shot), found)), angle(card(shot))]
      end.transpose
    end

    def median(list) = list.sort.values_at((list.size - 1) / 2, list.size / 2).sum / 2.0

    # Measured: 0.23 stops, and 0.87 degrees where the cameras' own mistakes are 1.15.
    it "comes near the truth: half of the shots within a third of a stop and 1.2 degrees of grey" do
      exposure, cast, uncorrected = errors
      expect(median(exposure)).to be < 0.33
      expect(median(cast)).to be < [1.2, median(uncorrected)].min
    end
  end
end
