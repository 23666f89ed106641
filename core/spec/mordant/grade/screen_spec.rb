# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Grade::Screen do
  let(:space) { Mordant::Colour::WorkingSpace.default }
  let(:working) { Frames.flat([0.45, 0.4, 0.35]) }

  def view(**about) = Mordant::Grade::View.new(**about)

  it "draws the very codes of the file where view and canvas agree" do
    screen = described_class.new(view: Mordant::Grade::View::STANDARD, canvas: "2.4")
    measured = screen.measured(working)
    expect(screen.drawn(working, measured)).to equal(measured)
    expect(screen.chain.call(working.rgb)).to eq(measured.rgb)
  end

  it "makes the same light on another canvas" do
    screen = described_class.new(view: Mordant::Grade::View::STANDARD, canvas: "srgb")
    measured = screen.measured(working)
    light = ->(frame) { Mordant::Pointwise::Chain.new(Mordant::Colour.encoding(frame.encoding).decoding).exact(Numo::DFloat.cast(frame.rgb)) }
    drawn = screen.drawn(working, measured)
    expect(drawn.encoding).to eq("srgb")
    expect((light[drawn] - light[measured]).abs.max).to be < 1e-4
    expect((drawn.rgb - measured.rgb).abs.max).to be > 0.005
    expect((screen.chain.call(working.rgb) - drawn.rgb).abs.max).to be < 1e-6
  end

  it "shows what a wider display shows as far as the canvas reaches" do
    pq = described_class.new(view: view(encoding: "rec2100-pq", rendering: "hdr-video-1000nit-15nit-p3lim-1.1"))
    drawn = pq.drawn(working, pq.measured(working))
    expect([drawn.encoding, drawn.rgb.max]).to match(["rec709-bt1886", be_between(0.1, 1.2)])
  end

  it "exaggerates colours in what is drawn and in nothing that is measured" do
    plain, loud = [false, true].map { |exaggerate| described_class.new(view: Mordant::Grade::View::STANDARD, exaggerate:) }
    measured = loud.measured(working)
    expect(measured.rgb).to eq(plain.measured(working).rgb)
    drawn = loud.drawn(working, measured)
    expect(drawn.rgb[0, 0] - drawn.rgb[2, 0]).to be > 2 * (measured.rgb[0, 0] - measured.rgb[2, 0])
    expect((loud.chain.call(working.rgb) - drawn.rgb).abs.max).to be < 1e-6
    grey = Frames.flat([0.4, 0.4, 0.4])
    expect((loud.drawn(grey, loud.measured(grey)).rgb - plain.measured(grey).rgb).abs.max).to be < 1e-6
  end

  it "shows the codes of the working space when the view is off" do
    screen = described_class.new(view: Mordant::Grade::View::STANDARD, on: false)
    expect(screen.drawn(working, screen.measured(working))).to equal(working)
    expect(screen.chain).to be_empty
    expect { described_class.new(view: Mordant::Grade::View::STANDARD, canvas: "1.8") }.to raise_error(Mordant::ParameterError, /canvas: expected 2.4, 2.2, srgb/)
  end
end

RSpec.describe Mordant::Grade::View do
  it "holds colours within a gamut without cutting them off" do
    wide = Mordant::Grade::Output.for(described_class.new(encoding: "rec2020-bt1886", rendering: "sdr-video-1.0"))
    held = Mordant::Grade::Output.for(described_class.new(encoding: "rec2020-bt1886", rendering: "sdr-video-1.0", limit: "p3-d65"))
    greens = Numo::NArray.vstack([Numo::SFloat.new(50).seq * -0.004 + 0.35, Numo::SFloat.new(50).fill(0.55), Numo::SFloat.new(50).seq * -0.004 + 0.35])
    p3 = ->(output) { Mordant::Colour::Conversion.new(from: "rec2020-bt1886", to: "p3-d65-g2.6").chain.exact(Numo::DFloat.cast(output.chain.call(greens))) }
    inside = Mordant::Colour::Conversion.new(from: "rec2020-bt1886", to: "xyz-d65").chain.exact(Numo::DFloat.cast(held.chain.call(greens)))
    light = Mordant::Pointwise::Matrix.new(Mordant::Colour::Primaries::P3_D65.from_xyz).call(Array.new(3) { |c| inside[c, true].dup })
    expect(light.map(&:min).min).to be > -1e-4
    red = p3[held][0, true]
    expect((red[1..] - red[0...-1]).max).to be < 0.0 # still told apart
    near = Numo::SFloat[[0.42, 0.41], [0.41, 0.41], [0.4, 0.41]]
    expect((wide.chain.call(near) - held.chain.call(near)).abs.max).to be < 1e-4
  end

  it "reads what a document says, and names what is wrong in it" do
    expect(described_class.from({"encoding" => "srgb", "rendering" => "sdr-video-1.0", "limit" => ""})).to eq(described_class.new(encoding: "srgb", rendering: "sdr-video-1.0"))
    {"view.encoding" => {"encoding" => "linear"}, "view.rendering" => {"encoding" => "acescg", "rendering" => "sdr-video-1.0"}, "view.limit" => {"encoding" => "srgb", "limit" => "moon"},
     "view.lut" => {"encoding" => "srgb", "lut" => "../x.cube"}, "view" => []}.each do |path, document|
      expect { described_class.from(document) }.to raise_error(Mordant::ParameterError) { |error| expect(error.path).to eq(path) }
    end
  end
end

RSpec.describe "Projects of other kinds" do
  let(:codes) { Frames.codes }

  def plan(space, source, **more) = Mordant::Grade::Plan.new(recipe: Frames.recipe, source:, space: Mordant::Colour::WorkingSpace.fetch(space), **more)

  it "show a finished programme exactly as it came" do
    space = Mordant::Colour::WorkingSpace.fetch("display")
    out = Mordant::Grade::Output.for(Mordant::Grade::View::STANDARD, space).run(plan("display", "rec709-bt1886").run(codes))
    expect((Numo::DFloat.cast(out.rgb) - Numo::DFloat.cast(codes.rgb) / 65_535).abs.max).to be < 1e-6
  end

  it "render a scene once on its way into a display-referred project" do
    space = Mordant::Colour::WorkingSpace.fetch("display")
    display = Mordant::Grade::Output.for(Mordant::Grade::View::STANDARD, space).run(plan("display", "logc3-ei800-wg3").run(codes))
    scene = Mordant::Grade::Output.for(Mordant::Grade::View::STANDARD).run(plan("acescct", "logc3-ei800-wg3").run(codes))
    expect((display.rgb - scene.rgb).abs.max).to be < 2e-3
  end

  # ACEScc cuts negative light off, so colours here stay within AP1.
  it "come to the same picture from every scene-referred working space" do
    grey = Numo::DFloat.new(600).seq * 70 + 8_000
    within = Mordant::Media::Codes.new(Numo::UInt16.cast(Numo::NArray.vstack([grey * 1.03, grey, grey * 0.96])), width: 600, height: 1)
    pictures = %w[acescct acescc acescg].map do |id|
      space = Mordant::Colour::WorkingSpace.fetch(id)
      Mordant::Grade::Output.for(Mordant::Grade::View::STANDARD, space).run(plan(id, "s-log3-s-gamut3.cine").run(within)).rgb
    end
    expect(pictures.combination(2).map { |a, b| (a - b).abs.max }).to all(be < 5e-4)
  end

  it "bring scene colours beyond AP1 within it only where asked to" do
    beyond = Mordant::Media::Codes.new(Numo::UInt16[[10_000], [40_000], [10_000]], width: 1, height: 1)
    light = ->(made) { Mordant::Colour::Transfer::Acescct.decode(Numo::DFloat.cast(made.run(beyond).rgb)).to_a.flatten }
    expect(light[plan("acescct", "s-log3-s-gamut3.cine")].min).to be < 0.0
    expect(light[plan("acescct", "s-log3-s-gamut3.cine", compress: true)].min).to be > -1e-3
    grey = Mordant::Media::Codes.new(Numo::UInt16[[26_000], [26_500], [26_200]], width: 1, height: 1)
    expect((plan("acescct", "s-log3-s-gamut3.cine").run(grey).rgb - plan("acescct", "s-log3-s-gamut3.cine", compress: true).run(grey).rgb).abs.max).to be < 1e-5
  end

  it "let Balance count on their own tone axis" do
    %w[acescct acescc acescg display].each do |id|
      space = Mordant::Colour::WorkingSpace.fetch(id)
      expect(space.to_h[:pivots].map(&:last).each_cons(2)).to all(satisfy { |a, b| a < b })
      step = ->(**p) { Mordant::Pointwise::Chain.new(Mordant::Steps::Balance.new(p).operations(space)).exact(Numo::DFloat.cast([[space.black, space.middle, space.white]] * 3)) }
      expect(step[contrast: 1.4][0, 1]).to be_within(1e-9).of(space.middle)
      expect(step[gain: [1.5, 1, 1, 1]][0, 0]).to be_within(1e-9).of(space.black)
      expect(step[lift: [0.1, 0, 0, 0]][0, 2]).to be_within(1e-9).of(space.white)
      expect(space.decode(step[exposure: 1.0][0, 1])).to be_within(1e-9).of(0.36)
    end
  end
end
