# frozen_string_literal: true

require "spec_helper"

# What a screen draws up a ladder under the hand, against the exact picture.
RSpec.describe "The picture under a moving hand" do
  demo = File.expand_path("../../../../demo", __dir__)
  manifest = JSON.parse(File.read(File.join(demo, "manifest.json")))
  screen = Mordant::Grade::Screen.new(view: Mordant::Grade::View::STANDARD)

  def lab(display)
    chain = Mordant::Pointwise::Chain.new(Mordant::Colour.encoding("rec709-bt1886").decoding)
    Mordant::Colour::Difference.lab(chain.exact(display.clip(0.0, 1.0))).transpose.to_a
  end

  def difference(exact, drawn)
    both = lab(Numo::DFloat.cast(exact)).zip(lab(Numo::DFloat.cast(drawn))).map { |a, b| Mordant::Colour::Difference.ciede2000(a, b) }
    both.sum / both.size
  end

  let(:balance) { ->(id, **more) { {"id" => id, "kind" => "balance", **more.transform_keys(&:to_s)} } }
  let(:ellipse) { {"contributors" => [{"id" => "e", "kind" => "ellipse", "mode" => "add", "parameters" => {"centre" => [0.2, -0.1], "softness" => 0.2}}]} }
  let(:bright) { {"contributors" => [{"id" => "l", "kind" => "luminance", "mode" => "add", "parameters" => {"low" => 0.35, "low_softness" => 0.3}}], "strength" => 0.9} }

  # As a screen draws it: a start picture, lattices and weights in 16 bits.
  def drawn(codes, recipe, step, source, screen)
    start = Mordant::Grade::Ladder::Start.of(recipe, step, source:)
    picture = start.before ? Mordant::Grade::Plan.new(recipe: start.before, source:).run(codes) : codes
    sent = Mordant::Grade::Ladder::Sent.of(picture, Mordant::Colour::WorkingSpace.default)
    ladder = Mordant::Grade::Ladder.new(groups: start.after, source: start.before ? "acescct" : source, screen:, domain: sent.domain, smalls: [picture.reduce(4)])
    [Ladders.climbed(ladder, sent, ladder.climb(picture).weights), start]
  end

  manifest["shots"].each do |shot|
    let(:"codes_#{shot["shot"]}") { Mordant::Media::Reader.new(File.join(demo, "media", shot["clip"]), rate: 24r, range: "legal").frame(20, width: 48, height: 27) }
    it "differs by less than a visible step on shot #{shot["shot"]}" do
      codes = send(:"codes_#{shot["shot"]}")
      recipe = Frames.recipe(exposure: -shot["truth"]["exposure"], contrast: 1.1, temperature: 6, saturation: 1.1)
      plan = Mordant::Grade::Plan.new(source: shot["encoding"], recipe:)
      picture, start = drawn(codes, recipe, "a", shot["encoding"], screen)
      expect(start.before).to be_nil
      expect(difference(screen.chain.call(plan.run(codes).rgb), picture)).to be < 0.3
    end

    next unless %w[1A 1D 2B 2D 3A 3D].include?(shot["shot"])

    it "does so with two steps that have mattes on shot #{shot["shot"]}, whichever is under the hand" do
      codes = send(:"codes_#{shot["shot"]}")
      recipe = Mordant::Grade::Recipe.new("steps" => [
        balance["a", parameters: {"exposure" => -shot["truth"]["exposure"], "contrast" => 1.15, "temperature" => 6}],
        balance["b", parameters: {"exposure" => 0.8, "saturation" => 1.3}, matte: ellipse, strength: 0.8],
        balance["c", parameters: {"exposure" => -0.5, "temperature" => -12}, matte: bright],
        balance["d", parameters: {"contrast" => 1.1, "saturation" => 0.9}]
      ])
      exact = screen.chain.call(Mordant::Grade::Plan.new(source: shot["encoding"], recipe:).run(codes).rgb)
      off = %w[a b c d].map { |step| difference(exact, drawn(codes, recipe, step, shot["encoding"], screen).first) }
      expect(off).to all(be < 0.3)
    end
  end

  it "has grain like the exact one's: as much in each channel and zone, as alike from channel to channel, and another in each frame" do
    width, height = 192, 108
    ramp = Numo::DFloat.new(1, width).seq * (9.0 / width) - 6
    light = Numo::NMath.exp(ramp * Math.log(2)) * 0.18 * Numo::DFloat.ones(height, 1)
    codes = Mordant::Colour::Transfer::Acescct.encode(light).reshape(1, width * height).tile(3, 1)
    picture = Mordant::Media::Codes.new(Numo::UInt16.cast(codes * 65_535), width:, height:)
    values = {"amount" => 3.0, "granularity" => 30.0, "zones" => [1.0, 0.5, 1.5], "colour" => 0.5}
    recipe = ->(frame, more = {}) { Mordant::Grade::Recipe.new("steps" => [{"id" => "g", "kind" => "grain", "parameters" => values.merge(more)}]).at(frame) }
    plain = screen.chain.call(Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new("steps" => []), source: "acescct").run(picture).rgb)
    sent = Mordant::Grade::Ladder::Sent.of(picture, Mordant::Colour::WorkingSpace.default)
    live = lambda do |frame, more = {}|
      ladder = Mordant::Grade::Ladder.new(groups: recipe[frame, more].strands, source: "acescct", screen:, domain: sent.domain, smalls: [picture.reduce(4)], raster: picture)
      Ladders.climbed(ladder, sent, {}, width:) - plain
    end
    exact = screen.chain.call(Mordant::Grade::Plan.new(recipe: recipe[4], source: "acescct").run(picture).rgb) - plain
    third = ->(change, at) { change.reshape(3, height, 3, width / 3)[true, true, at, true].reshape(3, height * width / 3) }
    3.times { |at| 3.times { |channel| expect(third[live[4], at][channel, true].stddev / third[exact, at][channel, true].stddev).to be_within(0.12).of(1.0) } }
    alike = ->(change) { (change[0, true] * change[1, true]).mean / (change[0, true].stddev * change[1, true].stddev) }
    expect(alike[live[4]]).to be_within(0.08).of(alike[Numo::DFloat.cast(exact)])
    expect((live[4] - live[5]).abs.mean).to be > live[4].abs.mean * 0.5
    expect(live[4]).to eq(live[4])
    expect(live[4, {"amount" => 0.0}].abs.max).to be < 2e-3
  end
end
