# frozen_string_literal: true

require "spec_helper"

RSpec.describe "Renditions of an HDR picture" do
  let(:hdr) { Mordant::Grade::View.new(encoding: "rec2100-pq", rendering: "hdr-video-1000nit-15nit-p3lim-1.1") }
  let(:space) { Mordant::Colour::WorkingSpace.default }
  let(:frame) { Mordant::Frame.new(Numo::SFloat.new(3, 96 * 54).rand * 0.5 + 0.08, width: 96, height: 54, encoding: space.log) }

  before { Numo::NArray.srand(3) }

  def view(peak: 100.0, black: 0.0, encoding: "rec709-bt1886", **more)
    Mordant::Grade::View.from({"encoding" => encoding, "rendition" => {"peak" => peak, "black" => black, "of" => hdr.document}, **more.transform_keys(&:to_s)})
  end

  def levels(greatest: 1000.0, least: 0.0001, mean: 20.0, **more) = Mordant::Rendition::Levels.new(least:, mean:, greatest:, **more)

  def mapping(all: {}, one: {}, **light) = Mordant::Rendition::Mapping.new(levels: levels(**light), all: Mordant::Rendition::ForAll.new(all), one: Mordant::Rendition::ForTarget.new(one))

  def through(mappings, frame = self.frame, **wanted) = Mordant::Grade::Output.for(view(**wanted).bound(Array(mappings)), space).run(frame).rgb

  # Light of BT.2020 greys and colours, cd/m2, through the operations of a mapping.
  def light(rows, mapping, aim = view.aim, gamut = "bt2020")
    Mordant::Pointwise::Chain.new(mapping.operations(aim, gamut)).exact(Numo::DFloat.cast(rows).transpose.dup / 100) * 100
  end

  def pq(nits) = Mordant::Colour::Transfer::PQ.encode(Numo::DFloat[*nits] / 100)

  it "takes greys as BT.2390's curve takes their codes" do
    nits = [0.01, 0.5, 5, 30, 80, 120, 400, 990]
    entry = Mordant::Rendition::ToneCurve.new(black: 0.0001, white: 1000.0, least: 0.0, greatest: 100.0)
    found = light(nits.map { |one| [one] * 3 }, mapping)
    expect((pq(found[0, true].to_a) - entry.call(pq(nits))).abs.max).to be < 1e-9
    expect((found[0, true] - found[2, true]).abs.max).to be < 1e-6
  end

  it "leaves what is darker than the shot's least level as dark as it is, but for a target whose black is brighter" do
    found = ->(black) { light([[0.0] * 3, [0.002] * 3, [0.01] * 3], mapping(least: 0.01), view(black:).aim)[1, true] }
    expect((found[0.0] - Numo::DFloat[0.0, 0.002, 0.01]).abs.max).to be < 1e-6
    expect((found[0.05] - 0.05).abs.max).to be < 1e-4
  end

  it "keeps the hue of ICtCp, and scales its chroma as BT.2390 says" do
    colours = [[300, 40, 20], [20, 500, 90], [60, 30, 700], [10, 4, 2]]
    before = Mordant::Rendition::ICtCp.of(Numo::DFloat.cast(colours).transpose.dup)
    chain = Mordant::Pointwise::Chain.new(mapping.changes(mapping.tones(view.aim)))
    after = Mordant::Rendition::ICtCp.of(chain.exact(Numo::DFloat.cast(colours).transpose.dup / 100) * 100)
    angle = ->(codes) { Numo::NMath.atan2(codes[2, true], codes[1, true]) }
    chroma = ->(codes) { Numo::NMath.hypot(codes[1, true], codes[2, true]) }
    expect((angle[after] - angle[before]).abs.max).to be < 1e-6
    ratio = after[0, true] / before[0, true]
    wanted = ratio.to_a.map { |one| [one, 1 / one].min }
    expect((chroma[after] / chroma[before]).to_a.zip(wanted).map { |a, b| (a - b).abs }.max).to be < 1e-6
  end

  it "leaves a picture that fits bit for bit as it is, in codes of its own and in others" do
    inside = {reach: {"bt709" => [0.9] * 3, "p3-d65" => [0.9] * 3}, greatest: 80.0}
    master = Mordant::Grade::Output.for(hdr, space).run(frame)
    expect(through(mapping(**inside), peak: 600.0, encoding: "rec2100-pq", limit: "p3-d65")).to eq(master.rgb)
    plain = Mordant::Grade::Output.for(hdr, space).chain + Mordant::Pointwise::Chain.new(Mordant::Colour::Conversion.new(from: "rec2100-pq", to: "rec709-bt1886").operations)
    expect(through(mapping(**inside))).to eq(plain.call(frame.rgb))
    expect(through(mapping(**inside, greatest: 101.0))).not_to eq(plain.call(frame.rgb))
  end

  it "brings colours into the gamut, so that they keep their differences" do
    greens = Array.new(20) { |n| [30.0 - n * 1.5, 60.0, 20.0 - n] }
    found = light(greens, mapping(greatest: 60.0, reach: {"bt709" => [2.0] * 3, "p3-d65" => [2.0] * 3}), view.aim, "bt709")
    expect(found.min).to be >= 0.0
    expect(found.max).to be <= 100.0
    red = found[0, true].to_a
    expect(red.each_cons(2).map { |a, b| a - b }).to all(be > 0.0)
  end

  it "brings what is too bright of a colour within the peak, and no grey with it" do
    found = light(Array.new(20) { |n| [2.0 + n * 5, 1.0 + n, 100.0 + n * 40] }, mapping)
    expect(found.max).to be < 101.0 # codes end at 100
    expect(found[2, true].to_a.each_cons(2).map { |a, b| b - a }).to all(be >= -0.01)
    greys = Array.new(20) { |n| [50.0 * n] * 3 }
    expect((light(greys, mapping).max(axis: 0) - light(greys, mapping).min(axis: 0)).max).to be < 1e-5
  end

  describe "corrected" do
    let(:nits) { [0.0001, 0.02, 1, 20, 200, 700, 1000] }
    let(:greys) { nits.map { |one| [one] * 3 } }

    it "is brighter or darker about the middle, where black and highlight stand still" do
      plain = light(greys, mapping)[1, true]
      [0.6, -0.6].each do |brightness|
        moved = light(greys, mapping(all: {"brightness" => brightness}))[1, true]
        expect((moved - plain)[[0, -1]].abs.max).to be < 1e-6
        expect((moved - plain)[2..4].to_a).to all(brightness.positive? ? be > 0.0 : be < 0.0)
        expect(moved.to_a).to eq(moved.to_a.sort)
      end
    end

    it "goes by stated formulas, which rise everywhere" do
      v = Numo::DFloat.linspace(0.0, 1.0, 1001)
      one = ->(**values) { Mordant::Rendition::ForTarget.new(values).toned(v, 0.4) }
      expect((one[tone: [0.1, -0.05, 0.08]] - (v + (1 - v)**3 * 0.1 - v * (1 - v) * 0.15 + v**3 * 0.08).clip(0.0, 1.0)).abs.max).to be < 1e-12
      {tone: [0.15, -0.15, -0.15], contrast: 2.0, ceiling: 0.5}.each { |name, value| expect((one[name => value][1..] - one[name => value][0...-1]).min).to be >= -1e-12, name.to_s }
      contrast = one[contrast: 1.7]
      expect([contrast[0], contrast[400], contrast[1000]]).to match([be_within(1e-9).of(0.0), be_within(1e-9).of(0.4), be_within(1e-9).of(1.0)])
      expect((contrast[401] - contrast[399]) / 0.002).to be_within(0.01).of(1.7)
      expect(one[ceiling: 0.8].max).to be_within(1e-12).of(0.8)
    end

    it "turns and strengthens the colours of a sector, and no grey" do
      colours = [[200, 60, 50], [50, 150, 60], [80, 80, 80]]
      before = Mordant::Rendition::ICtCp.of(light(colours, mapping))
      after = Mordant::Rendition::ICtCp.of(light(colours, mapping(one: {"hue" => [10, 0, 0, 0, 0, 0], "amount" => [0.2, 0, 0, 0, 0, 0]})))
      moved = ((after - before)**2).sum(axis: 0)
      expect(moved[0]).to be > 1e-5
      expect(moved[1]).to be < moved[0] / 10
      expect(moved[2]).to be < 1e-10
      expect(Mordant::Rendition::Sectors.middles.sort.each_cons(2).map { |a, b| b - a }).to all(be_between(0.02, 0.35))
    end

    it "changes nothing where nothing is corrected, and colour alone where that is" do
      neutral = Mordant::Rendition::ForTarget.parameters.to_h { |name, parameter| [name.to_s, parameter.neutral_value] }
      expect(through(mapping(one: neutral))).to eq(through(mapping))
      more = Mordant::Rendition::ICtCp.of(light([[50, 20, 10]], mapping(greatest: 60.0, one: {"colour" => 1.3})))
      plain = Mordant::Rendition::ICtCp.of(Numo::DFloat[[50], [20], [10]])
      expect((more[1..2, true] / plain[1..2, true]).to_a.flatten).to all(be_within(1e-6).of(1.3))
      expect(more[0, 0]).to be_within(1e-9).of(plain[0, 0])
    end
  end

  describe "with detail given back to highlights" do
    let(:stripes) do
      row = (Numo::Int32.new(96 * 54).seq % 4 < 2).where2.then { |light, _| Numo::SFloat.new(1, 96 * 54).fill(0.58).tap { |codes| codes[0, light] = 0.62 } }
      Mordant::Frame.new(Numo::NArray.vstack([row] * 3), width: 96, height: 54, encoding: space.log)
    end

    it "has more of it there, in parts of a picture as in the whole" do
      contrast = ->(rgb) { rgb.reshape(3, 54, 96)[1, 20...30, 20...60].stddev }
      plain, more = [0.0, 1.0].map { |detail| through(mapping(greatest: 900.0, one: {"detail" => detail}), stripes) }
      expect(contrast[more]).to be > contrast[plain] * 1.2
      output = Mordant::Grade::Output.for(view.bound([mapping(greatest: 900.0, one: {"detail" => 1.0})]), space)
      expect(output).not_to be_pointwise
      margin = output.margin(stripes)
      window = Mordant::Grade::Window.new(left: 30, top: 20, width: 20, height: 10)
      around = window.grown(margin, stripes)
      part = Mordant::Frame.new(around.cut(stripes.rgb, Mordant::Grade::Window.whole(96, 54)), width: around.width, height: around.height, encoding: space.log, place: Mordant::Grade::Place.new(window: around, width: 96, height: 54))
      expect(window.cut(output.run(part).rgb, around)).to eq(window.cut(more, Mordant::Grade::Window.whole(96, 54)))
    end
  end

  it "never touches bars, however blacks are raised" do
    rgb = Numo::SFloat.new(3, 54, 96).fill(0.4)
    rgb[true, 0...6, true] = space.black
    rgb[true, 48..., true] = space.black
    barred = Mordant::Frame.new(rgb.reshape(3, 96 * 54), width: 96, height: 54, encoding: space.log)
    lifted = {greatest: 500.0, one: {"tone" => [0.1, 0.0, 0.0]}}
    made = through(mapping(**lifted, active: [0.0, 6 / 54.0, 1.0, 42 / 54.0]), barred).reshape(3, 54, 96)
    whole = through(mapping(**lifted), barred).reshape(3, 54, 96)
    expect(made[true, 6...48, true]).to eq(whole[true, 6...48, true])
    barred_output = ->(one) { Mordant::Grade::Output.for(view.bound([mapping(greatest: 500.0, active: [0.0, 0.1, 1.0, 0.8], one:)]), space) }
    expect([{}, {"contrast" => 1.2}, {"tone" => [0.1, 0.0, 0.0]}].map { |one| [barred_output[one].pointwise?, barred_output[one].drawable?] }).to eq([[false, true], [false, true], [false, false]])
    expect(whole[true, 0, 0].min).to be > 0.03
    plain = Mordant::Grade::Output.for(hdr, space).chain + Mordant::Pointwise::Chain.new(Mordant::Colour::Conversion.new(from: "rec2100-pq", to: "rec709-bt1886").operations)
    expect(made[true, [0, 5, 48, 53], true].max).to be <= plain.call(barred.rgb)[true, 0].max
  end

  it "shows both shots of a transition, each as it is mapped, by how much there is of it" do
    dark, bright = frame, frame.with(frame.rgb * 0.5 + 0.3)
    layer = Struct.new(:share, :wipe).new(0.25, nil)
    mixed = Mordant::Deliver::Mixing.new.call(dark, bright, layer)
    one, other = mapping(greatest: 90.0), mapping(greatest: 900.0)
    flat = Mordant::Frame.new(mixed.rgb, width: 96, height: 54, encoding: space.log)
    wanted = through(one, flat) * 0.75 + through(other, flat) * 0.25
    expect((through([one, other], mixed) - wanted).abs.max).to be < 1e-6
    expect(through([one, one], mixed)).to eq(through(one, flat))
  end

  it "writes relative codes from the screen's black on, by BT.1886" do
    nits = [0.05, 1.0, 10.0, 100.0]
    made = Mordant::Grade::Output.for(view(black: 0.05).bound([mapping(greatest: 100.0, least: 0.05)]), space)
    codes = nits.map { |one| made.send(:encoded).then { |operations| Mordant::Pointwise::Chain.new([Mordant::Pointwise::Matrix.new(Mordant::Colour::Primaries::REC709.to_xyz), *operations]).exact(Numo::DFloat.new(3, 1).fill(one / 100))[1, 0] } }
    a = (100**(1 / 2.4) - 0.05**(1 / 2.4))**2.4
    b = 0.05**(1 / 2.4) / (100**(1 / 2.4) - 0.05**(1 / 2.4))
    expect(through(mapping(greatest: 300.0, least: 0.001), black: 0.05).min).to be >= 0.0
    expect(codes.map { |code| a * (code + b)**2.4 }).to match(nits.map { |one| be_within(one * 1e-5).of(one) })
  end
end
