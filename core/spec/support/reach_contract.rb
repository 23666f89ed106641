# frozen_string_literal: true

# Pictures through plans of one step.
module StepPlans
  def raster = [96, 54]

  def recipe(step, **more) = Mordant::Grade::Recipe.new("steps" => [{"id" => "s", "kind" => step.class.id, "parameters" => step.values.transform_keys(&:to_s), **more.transform_keys(&:to_s)}])

  def plan(step, **more) = Mordant::Grade::Plan.new(recipe: recipe(step, **more), source: "acescct")

  # A picture with something at every size: ramps, edges, single pixels.
  def pictured(width, height, seed: 1)
    Numo::NArray.srand(seed)
    noise = Numo::SFloat.new(3, height, width).rand * 0.2
    noise[true, (height / 4)..(height / 2), (width / 3)..(width / 2)] += 0.4
    noise += (Numo::SFloat.new(width).seq / width * 0.3).reshape(1, 1, width)
    noise[true, height / 3, width / 5] = 1.1
    Mordant::Frame.new(noise.reshape(3, height * width), width:, height:, encoding: "acescct")
  end

  def untouched(picture) = Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new("steps" => []), source: "acescct").apply(picture).rgb

  # @return [#call] of a clip of so many frames, seen from one
  def clip(frames, from) = ->(away) { frames[from + away] if (0...frames.size).cover?(from + away) }
end

# What every step keeps to that sees more of a picture than a pixel.
RSpec.shared_examples "a step that reaches" do
  include StepPlans

  it "leaves a picture as it was when neutral, bit for bit, and is not there then" do
    picture = pictured(*raster)
    neutral = described_class.neutral
    expect(neutral).to be_neutral
    expect(plan(neutral).apply(picture).rgb).to eq(untouched(picture))
    expect(plan(neutral)).to be_pointwise
  end

  it "has words about each parameter, refuses others, and says what it reaches" do
    expect(described_class.parameters.values.map(&:about)).to all(end_with("."))
    expect { described_class.new({"nothing" => 1}) }.to raise_error(Mordant::ParameterError, /parameters of #{described_class.id}/)
    expect(described_class.to_h).to include(reach: described_class.reach.to_s, pointwise: false, order: described_class.parameters.keys.map(&:to_s))
  end
end

RSpec.shared_examples "an area step" do
  include_examples "a step that reaches"

  it "changes a picture, and half as much at half its strength" do
    picture = pictured(*raster)
    light = Mordant::Colour::Conversion.new(from: "acescct", to: Mordant::Colour::WorkingSpace.default.encoding_of(described_class.domain)).chain
    none, half, full = [0.0, 0.5, 1.0].map { |strength| light.call(plan(subject, strength:).apply(picture).rgb) }
    mean = (none + full) * 0.5
    expect((full - none).abs.max).to be > 0.01
    expect(((half - mean).abs / (mean.abs + 1)).max).to be < 2e-4
  end

  it "shows no boundary of a window, to the bit" do
    picture = pictured(*raster)
    made = plan(subject)
    moment = Mordant::Grade::Moment.of(picture)
    whole = made.picture(moment).rgb
    [[0, 0, 96, 10], [0, 10, 96, 44], [17, 9, 31, 20], [90, 50, 6, 4]].each do |left, top, width, height|
      window = Mordant::Grade::Window.new(left:, top:, width:, height:)
      expect(made.picture(moment.at(window)).rgb).to eq(window.cut(whole, moment.window)), window.to_h.inspect
    end
  end

  it "shows none of bands either" do
    picture = pictured(*raster)
    moment = Mordant::Grade::Moment.of(picture)
    bands = (0...raster[1]).step(9).map { |top| Mordant::Grade::Window.new(left: 0, top:, width: raster[0], height: [9, raster[1] - top].min) }
    expect(plan(subject).picture(moment, bands: bands.rotate(2)).rgb).to eq(plan(subject).picture(moment).rgb)
  end

  it "depends on no pixel beyond its margin" do
    picture = pictured(*raster)
    made = plan(subject)
    margin = made.margin(picture)
    middle = raster[1] / 2 * raster[0] + raster[0] / 2
    far = picture.rgb.dup.reshape(3, raster[1], raster[0])
    across, down = [raster[0] / 2, raster[1] / 2]
    kept = far[true, [down - margin, 0].max..(down + margin), [across - margin, 0].max..(across + margin)].dup
    far[true, true, true] = far + 0.3
    far[true, [down - margin, 0].max..(down + margin), [across - margin, 0].max..(across + margin)] = kept
    changed = picture.with(far.reshape(3, picture.size))
    expect(made.apply(changed).rgb[true, middle]).to eq(made.apply(picture).rgb[true, middle])
  end

  it "shows a proxy as it shows the master" do
    master = pictured(384, 216)
    smooth = Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new("steps" => [{"id" => "a", "kind" => "soften", "parameters" => {"size" => 0.03, "luma" => 1, "colour" => 1}}]), source: "acescct").apply(master)
    large, small = plan(subject).apply(smooth).reduce(2), plan(subject).apply(smooth.reduce(2))
    expect((large.rgb - small.rgb).abs.mean).to be < 0.0015
    expect((large.rgb - small.rgb).abs.max).to be < 0.02
  end

  it "never writes to what it was given, and keeps results finite" do
    picture = pictured(*raster)
    kept = picture.rgb.dup
    out = plan(subject).apply(picture).rgb
    expect([picture.rgb, out.isfinite.all?]).to eq([kept, true])
  end
end

RSpec.shared_examples "a time step" do
  include_examples "a step that reaches"

  it "is the same for a frame asked for alone and in a run, bit for bit, at the ends of the clip too" do
    frames = Array.new(7) { |seed| pictured(*raster, seed:) }
    made = plan(subject)
    run = frames.each_index.map { |at| made.picture(Mordant::Grade::Moment.of(frames[at], around: clip(frames, at))).rgb }
    [0, 3, 6].each do |at|
      alone = plan(subject).picture(Mordant::Grade::Moment.of(frames[at], around: clip(frames, at))).rgb
      expect([alone, alone.isfinite.all?]).to eq([run[at], true])
    end
    expect((run[3] - untouched(frames[3])).abs.max).to be > 0.01
  end

  it "depends on no frame beyond its window" do
    frames = Array.new(2 * subject.window + 3) { |seed| pictured(*raster, seed:) }
    at = subject.window + 1
    seen = []
    around = ->(away) { (seen << away) && clip(frames, at)[away] }
    plan(subject).picture(Mordant::Grade::Moment.of(frames[at], around:))
    expect(seen.uniq.minmax).to eq([-subject.window, subject.window])
    expect(plan(subject).window).to eq(subject.window)
  end
end
