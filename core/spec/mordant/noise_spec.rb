# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Noise do
  let(:width) { 192 }
  let(:height) { 128 }
  let(:window) { Mordant::Grade::Window.whole(width, height) }
  let(:random) { Random.new(5) }

  # Standard normal numbers (Box and Muller), of Ruby's own generator.
  def normal(count) = Numo::SFloat.cast(Array.new(count) { Math.sqrt(-2 * Math.log(1 - random.rand)) * Math.cos(2 * Math::PI * random.rand) })

  # Log codes of a scene: shades, a pattern, an edge, and a bright square that moves.
  def scene(square: nil)
    x, y = Numo::SFloat.new(1, width).seq, Numo::SFloat.new(height, 1).seq
    shade = x * 0.0006 + y * 0.0008 + 0.25
    pattern = Numo::NMath.sin(x * 0.9) * Numo::NMath.sin(y * 0.7) * 0.03
    shade[true, 0...(width / 3)] = shade[true, 0...(width / 3)] + pattern[true, 0...(width / 3)]
    shade[(height / 2).., (width * 2 / 3)..] = shade[(height / 2).., (width * 2 / 3)..] + 0.08
    shade[40...64, square...(square + 24)] = 0.6 if square
    Numo::NArray.vstack([shade.reshape(1, width * height), (shade * 0.97 + 0.01).reshape(1, width * height), (shade * 1.03 - 0.01).reshape(1, width * height)])
  end

  def noisy(clean, deviation = 0.012) = clean + Numo::NArray.vstack(Array.new(3) { (normal(width * height) * deviation).reshape(1, width * height) })

  def error(made, clean, rows: true, columns: true)
    off = Numo::DFloat.cast(made - clean).reshape(3, height, width)[true, rows, columns]
    Math.sqrt((off * off).mean)
  end

  def cleaned(frames, at, **parameters)
    moment = Mordant::Grade::Moment.new(width:, height:) { nil }
    Mordant::Steps::Noise.new({frames: at, **parameters}).process(nil).call(frames[at], frames.dup.tap { |all| all.delete_at(at) }, moment) { |there| there.window.cut(frames[at], moment.window) }
  end

  describe Mordant::Noise::Profile do
    it "finds the variance of white noise on each plane, by detail size and level" do
      profile = Mordant::Noise::Estimate.profile([[Mordant::Noise.turned(noisy(scene)), window]])
      # what the transform leaves of white noise, from its taps: (6 4 1)/16 twice across and down
      white = [0.8002, 0.0410, 0.0085].map { |share| share * 0.012**2 }
      3.times { |plane| 2.times { |scale| expect(profile.variances[plane][scale].sort[profile.levels.size / 2] / white[scale]).to be_between(0.7, 1.4), [plane, scale].inspect } }
      expect(profile.values(0)[profile.spots(Numo::SFloat[0.75, 9.0])][0]).to be_within(0.4 * 0.012**2).of(0.012**2)
      expect(profile.levels).to eq(profile.levels.sort)
    end

    it "is kept as rows, and as much as a patch has" do
      one = Mordant::Noise::Estimate.profile([[Mordant::Noise.turned(noisy(scene)), window]])
      again = described_class.of(one.rows)
      one.levels.each { |level| expect(again.at(1, 0, level)).to be_within(1e-3 * one.at(1, 0, level)).of(one.at(1, 0, level)) }
      patch = Mordant::Grade::Window.whole(64, 64)
      flat = Numo::SFloat.new(3, 4096).fill(0.4) + Numo::NArray.vstack(Array.new(3) { (normal(4096) * 0.03).reshape(1, 4096) })
      expect(one.like(Mordant::Noise.turned(flat), patch).at(2, 0, 0.4 * Math.sqrt(3))).to be_within(0.15 * 0.79 * 0.03**2).of(0.79 * 0.03**2)
      shaded = flat + (Numo::SFloat.new(1, 4096).seq % 64) * 0.004 # a sky that is not quite flat
      curved = one.like(Mordant::Noise.turned(shaded), patch)
      expect(curved.at(0, 3, 0.5 * Math.sqrt(3))).to be < 0.01 * curved.at(0, 0, 0.5 * Math.sqrt(3))
      expect([described_class.whole?(one.rows), described_class.whole?(one.rows.drop(1)), described_class.whole?(one.rows.reject { |row| row[1] == 2.0 })]).to eq([true, true, false])
    end

    it "rises where there is more of it" do
      clean = scene
      more = noisy(clean, 0.02)
      less = noisy(clean, 0.005)
      bright = Numo::Bit.cast(clean[0, true] > 0.36)
      mixed = less.dup
      3.times { |channel| mixed[channel, bright] = more[channel, bright] }
      profile = Mordant::Noise::Estimate.profile([[Mordant::Noise.turned(mixed), window]])
      expect(profile.variances[1][0].last / profile.variances[1][0].first).to be > 5
    end
  end

  it "turns planes there and back, with as much noise in each" do
    frame = noisy(scene)
    expect((described_class.back(described_class.turned(frame)) - frame).abs.max).to be < 1e-6
    expect(described_class.turned(noisy(Numo::SFloat.zeros(3, width * height))).map(&:stddev)).to all(be_within(3e-4).of(0.012))
  end

  it "is no step at all without strength, bit for bit" do
    recipe = Mordant::Grade::Recipe.new("steps" => [{"id" => "n", "kind" => "noise", "parameters" => {"frames" => 3, "method" => "fine"}}])
    expect([recipe.neutral?, recipe.window]).to eq([true, 0])
    frame = noisy(scene)
    moment = Mordant::Grade::Moment.of(Mordant::Frame.new(frame, width:, height:, encoding: "acescct"))
    expect(Mordant::Grade::Plan.new(recipe:, source: "acescct").picture(moment).rgb).to eq(Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new("steps" => []), source: "acescct").picture(moment).rgb)
  end

  it "takes most of the noise, more by patches and more by other frames, and keeps patterns and edges" do
    clean = scene
    frames = Array.new(5) { noisy(clean) }
    before = error(frames[2], clean)
    made = ->(count, **more) { error(cleaned(frames[(2 - count)..(2 + count)], count, luma: 1.0, colour: 1.0, frames: count, **more), clean) }
    single = made[0]
    expect(single).to be < 0.6 * before
    expect([made[0, method: "fine"], made[1, method: "fine"]]).to match([be < 0.6 * before, be < 0.85 * single])
    expect(made[1]).to be < 0.85 * single
    expect(made[2]).to be < made[1]
    edge = {rows: (height / 2 - 3)..(height / 2 + 3), columns: (width * 2 / 3)..}
    expect(error(cleaned(frames, 2, luma: 1.0, colour: 1.0), clean, **edge)).to be < 0.7 * error(frames[2], clean, **edge)
  end

  it "follows what moves and leaves no trail of it" do
    squares = [60, 66, 72, 78, 84]
    frames = squares.map { |square| noisy(scene(square:)) }
    clean = scene(square: 72)
    alone, more = [cleaned(frames[2, 1], 0, luma: 1.0, colour: 1.0), cleaned(frames, 2, luma: 1.0, colour: 1.0, movement: 0.06)]
    about = {rows: 34...70, columns: 52...114}
    expect(error(more, clean, **about)).to be < 1.02 * error(alone, clean, **about)
    expect(error(more, clean, **about)).to be < 0.6 * error(frames[2], clean, **about)
  end

  it "learns nothing from a frame that is repeated, nor from another shot" do
    clean = scene
    frame = noisy(clean)
    alone = cleaned([frame], 0, luma: 1.0, colour: 1.0)
    expect(cleaned([frame.dup, frame, frame.dup], 1, luma: 1.0, colour: 1.0)).to eq(alone)
    other = noisy(scene * -1.0 + 0.9)
    expect(cleaned([other, frame, other.dup], 1, luma: 1.0, colour: 1.0)).to eq(alone)
  end

  it "goes by a profile that is given, and refuses one that says too little" do
    frame = noisy(scene)
    rows = Mordant::Noise::Estimate.profile([[described_class.turned(frame), window]]).rows
    own, given, more = [{}, {profile: rows}, {profile: rows.map { |plane, size, level, variance| [plane, size, level, variance + 0.6] }}].map { |parameters| cleaned([frame], 0, luma: 1.0, colour: 1.0, **parameters) }
    expect((given - own).abs.mean).to be < 1e-4
    expect((more - frame).abs.mean).to be > (own - frame).abs.mean * 1.05
    expect { Mordant::Steps::Noise.new({profile: rows.first(5)}) }.to raise_error(Mordant::ParameterError, /profile/)
    expect(Mordant::Steps::Noise.new({profile: rows}).shapes(count: 5).keys).to include(:levels, :luma_0, :v_3)
  end

  it "cleans luma and colour apart" do
    frame = noisy(scene)
    planes = described_class.turned(frame)
    luma, colour = [{luma: 1.0}, {colour: 1.0}].map { |which| described_class.turned(cleaned([frame], 0, **which)) }
    expect((luma[1] - planes[1]).abs.max).to be < 1e-6
    expect((luma[0] - planes[0]).abs.mean).to be > 1e-3
    expect((colour[0] - planes[0]).abs.max).to be < 1e-6
    expect((colour[2] - planes[2]).abs.mean).to be > 1e-3
  end

  it "goes by luma for colour where they are linked, and by detail size and by frames as far as is said" do
    frames = Array.new(3) { noisy(scene) }
    made = ->(**more) { cleaned(frames, 1, luma: 1.0, colour: 0.3, frames: 1, **more) }
    expect(made[link: "linked"]).to eq(made[colour: 1.0])
    expect(made[temporal: [0.0, 0.0]]).to eq(cleaned(frames[1, 1], 0, luma: 1.0, colour: 0.3))
    expect((made[temporal: [0.0, 0.0], sizes: [0.0] * 4] - frames[1]).abs.max).to be < 2e-6
    fine, coarse = [[1.0, 0.0, 0.0, 0.0], [0.0, 0.0, 1.0, 1.0]].map { |sizes| Mordant::Noise::Details.of(described_class.turned(made[temporal: [0.0, 0.0], sizes:] - frames[1])[0], window).first.map { |detail| (detail * detail).mean } }
    expect([fine[0] > 20 * fine[2], coarse[0] < coarse[2]]).to eq([true, true])
  end

  it "has no boundary where windows meet" do
    frames = Array.new(3) { |at| noisy(scene(square: 60 + 4 * at)) }
    pictures = frames.map { |frame| Mordant::Frame.new(frame, width:, height:, encoding: "acescct") }
    moment = Mordant::Grade::Moment.of(pictures[1], around: ->(away) { pictures[1 + away] if away.abs <= 1 })
    plan = Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new("steps" => [{"id" => "n", "kind" => "noise", "parameters" => {"luma" => 1.0, "colour" => 1.0, "frames" => 1, "movement" => 0.03}}]), source: "acescct")
    whole = plan.picture(moment).rgb.reshape(3, height, width)
    part = plan.picture(moment.at(Mordant::Grade::Window.new(left: 90, top: 50, width: 40, height: 30))).rgb.reshape(3, 30, 40)
    expect((part - whole[true, 50...80, 90...130]).abs.mean).to be < 2e-4
  end

  describe Mordant::Noise::Kept do
    let(:recipe) { Mordant::Grade::Recipe.new("steps" => [{"id" => "a", "kind" => "balance", "parameters" => {"exposure" => 0.5}}, {"id" => "n", "kind" => "noise", "parameters" => {"luma" => 1.0}}, {"id" => "b", "kind" => "balance", "parameters" => {"exposure" => -0.5}}]) }

    it "parts a recipe at its last step that takes noise away, if one does" do
      found = described_class.of(recipe)
      expect([found.before, found.upto, found.after].map { |one| one.entries.map(&:id) }).to eq([%w[a], %w[a n], %w[b]])
      expect(described_class.of(recipe.without(:noise))).to be_nil
      later = Mordant::Grade::Recipe.new("steps" => [{"id" => "n", "kind" => "noise", "parameters" => {"luma" => 1.0}}, {"id" => "v", "kind" => "average", "parameters" => {"frames" => 1}}])
      expect(described_class.of(later)).to be_nil # other frames are seen after it
    end

    it "keeps what was taken to within half floats, and what is no number as it came" do
      came = Mordant::Frame.new(noisy(scene), width:, height:, encoding: "acescct")
      left = came.with(came.rgb + came.rgb * 0.05)
      kept = described_class.packed(came, left)
      expect((described_class.unpacked(came, kept).rgb - left.rgb).abs.max).to be <= 0.05 * 1.0 * 2.0**-11 + 1e-7
      [Float::NAN, Float::INFINITY].each do |odd|
        spoiled = [came, left].map { |one| one.with(one.rgb.dup.tap { |rgb| rgb[1, 7] = odd }) }
        made = described_class.unpacked(spoiled[0], described_class.packed(*spoiled)).rgb
        expect(odd.nan? ? made[1, 7].nan? : made[1, 7] == odd).to eq(true)
        expect(made[1, 8]).to be_within(1e-5).of(left.rgb[1, 8])
      end
      expect(described_class.unpacked(came, "short")).to be_nil
    end
  end
end
