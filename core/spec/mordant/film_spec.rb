# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Film do
  let(:space) { Mordant::Colour::WorkingSpace.default }
  let(:display) { Mordant::Colour::WorkingSpace.fetch("display") }
  let(:negatives) { Mordant::Film::Materials.all("negative") }
  let(:prints) { Mordant::Film::Materials.all("print") }

  def emulsion(**values) = Mordant::Steps.fetch("emulsion").new(values)

  # Stops from mid grey that a step makes of greys, by channel.
  def greys(step, stops, space)
    codes = stops.map { |one| space.encode(0.18 * 2.0**one) }
    made = step.apply(Numo::SFloat[codes, codes, codes], space:)
    Array.new(3) { |channel| space.transfer.decode(Numo::DFloat.cast(made[channel, true])).to_a.map { |light| Math.log2(light / 0.18) } }
  end

  describe "materials" do
    it "are five negatives and four prints within published ranges, whose curves rise" do
      expect([negatives.size, prints.size, Mordant::Film::Materials.faults]).to eq([5, 4, []])
      expect(negatives.map(&:balance).tally).to eq("daylight" => 3, "tungsten" => 2)
      exposures = Numo::DFloat.new(400).seq * 0.02 - 4.0
      negatives.each do |negative|
        expect(negative.layers.map(&:slope)).to all(be_between(0.5, 0.65))
        expect(negative.layers.map(&:greatest)).to all(be_between(1.8, 2.6))
        expect(negative.bases.each_cons(2)).to all(satisfy { |a, b| b > a })
        expect(negative.layers.map { |layer| layer.shoulder - layer.toe }).to all(be > 3.5) # about 12 stops
        expect(negative.granularity).to be_between(2, 10)
      end
      prints.each do |print|
        expect(print.layers.map(&:slope)).to all(be_between(2.5, 3.2))
        expect(print.layers.zip(print.bases).map { |layer, base| layer.greatest + base }).to all(be_between(3.5, 4.2))
      end
      (negatives + prints).flat_map(&:layers).each { |layer| expect(layer.call(exposures).diff.min).to be > -1e-9 } # of rounding
    end

    it "go along their stated curves: straight between the bends, half way round each" do
      curve = Mordant::Film::Characteristic.new(slope: 0.6, toe: -1.4, shoulder: 2.4, toe_width: 0.2, shoulder_width: 0.3)
      at = ->(h) { curve.call(Numo::DFloat[h])[0] }
      expect(at[0.6] - at[0.4]).to be_within(2e-3).of(0.12)
      expect(at[-1.4]).to be_within(1e-6).of(0.6 * 0.2 * Math.log(2))
      expect([at[-8], at[12]]).to match([be_within(1e-6).of(0), be_within(1e-6).of(0.6 * 3.8)])
      pushed = curve.developed(1.0)
      expect([pushed.slope, pushed.toe, pushed.shoulder].map { |one| one.round(6) }).to eq([0.654, -1.52, 2.28])
      relaxed = curve.relaxed(1.0)
      slopes = [-6, 8].map { |h| relaxed.call(Numo::DFloat[h + 0.5])[0] - relaxed.call(Numo::DFloat[h - 0.5])[0] }
      expect(slopes).to all(be_within(1e-3).of(0.6 * 0.25))
    end

    it "refuse bad files with line and reason" do
      good = File.read(File.join(Mordant::Film::Materials::SHIPPED, "petrel.json"))
      line = ->(text) { good.lines.index { |one| one.include?(text) } + 1 }
      refused = lambda do |text, at, reason|
        expect { Mordant::Film::Material.parse(text, id: "x") }.to raise_error(Mordant::FormatError) { |e| expect([e.line, e.message]).to match([at, reason]) }
      end
      refused[good.sub('"slope": 0.57,', '"slope": -1,'), line["0.57,"], /layers\[1\]\.slope.*0\.3\.\.1\.2/]
      refused[good.sub("[0.91, 0.08, 0.01]", "[0.91, 0.08, 0.2]"), line["sensitivities"], /sums to 1/]
      refused[good.sub('"kind": "negative"', '"kind": "paper"'), line['"kind"'], /negative or print/]
      refused[good.sub('"speed": 250,', '"speed": 250, "sparkle": 1,'), line['"speed"'], /only/]
      refused[good.sub('"name": "Petrel",', '"name": "Petrel"'), be_between(4, 5), /JSON/]
      refused["[]", 1, /version 1/]
    end

    it "come from a person's library too, and say when one is gone or of another kind" do
      Dir.mktmpdir do |folder|
        Mordant::Library.root = folder
        FileUtils.mkdir_p(File.join(folder, "materials"))
        File.write(File.join(folder, "materials/auk.json"), File.read(File.join(Mordant::Film::Materials::SHIPPED, "tern.json")).sub("Tern", "Auk"))
        File.write(File.join(folder, "materials/torn.json"), "{")
        expect(negatives.map(&:name)).to include("Auk", "Tern")
        expect(Mordant::Film::Materials.faults.map(&:path)).to eq(["torn.json"])
        expect(emulsion(negative: "auk").stamps).not_to eq(emulsion(negative: "tern").stamps)
        expect { emulsion(negative: "dodo").operations(space) }.to raise_error(Mordant::MediaError, /not in the library/)
        expect { emulsion(negative: "fulmar").operations(space) }.to raise_error(Mordant::MediaError, /print, not a negative/)
        expect(emulsion(negative: "dodo").missing).to eq(["dodo"])
      ensure
        Mordant::Library.root = nil
      end
    end
  end

  describe "the chain" do
    it "is nothing where all is neutral, whatever alone changes no picture" do
      expect([{}, {limits: 0.3}, {coupling: 2}].map { |values| emulsion(**values).operations(space) }).to all(eq([]))
    end

    it "departs by nothing from the neutral chain, in scenes and on displays" do
      none = {negative: nil, print: nil, exposure: 0.0, warmth: 0.0, flash: 0.0, push: 0.0, coupling: 1.0, speed: 0.0, toe: 0.0, slope: 1.0, shoulder: 0.0, points: [0.0] * 4, print_exposure: 0.0, limits: 1.0, silver: 0.0}
      [space, display].each do |one|
        codes = Numo::SFloat.cast((0..60).map { |step| [one.encode(0.002) + step * (one.encode(0.9) - one.encode(0.002)) / 60] * 3 }.transpose)
        made = Mordant::Pointwise::Chain.new(Mordant::Film::Chain.new(**none).operations(one)).call(codes)
        expect((made - codes).abs.max).to be < 1e-4
      end
    end

    it "moves log exposure by 0.30103 a stop and print exposure by 0.025 a point" do
      chain = ->(**values) { emulsion(**values).chain }
      expect(greys(emulsion(exposure: 1), [-3, 0, 2], space).flatten).to match(([-2, 1, 3] * 3).map { |stop| be_within(0.002).of(stop) })
      lights = ->(**values) { chain[negative: "petrel", print: "fulmar", **values].printer.zip(chain[negative: "petrel", print: "fulmar"].printer).map { |a, b| (a - b).round(9) } }
      expect(lights[points: [1, 0, 0, 0]]).to eq([0.025] * 3)
      expect(lights[points: [0, 0, 4, 0]]).to eq([0.0, 0.1, 0.0])
      expect(lights[print_exposure: 1]).to eq([Math.log10(2).round(9)] * 3)
    end

    it "sends a grey scale through each negative and print as their curves state" do
      negatives.product(prints).each do |negative, print|
        step = emulsion(negative: negative.id, print: print.id)
        chain = step.chain
        stops = [-4.0, -1.0, 0.0, 1.0, 3.0]
        stated = stops.map do |stop|
          layers = Array.new(3) { |layer| negative.layers[layer].call(Numo::DFloat[stop * Math.log10(2)])[0] }
          coupled = negative.inhibition.each_with_index.map { |row, i| layers[i] + row.zip(layers).sum { |k, d| k * d } }
          dyes = negative.absorptions.map { |row| row.zip(coupled).sum { |a, d| a * d } }
          printed = Array.new(3) { |channel| print.layers[channel].call(Numo::DFloat[chain.printer[channel] - dyes[channel]])[0] }
          print.absorptions.map { |row| row.zip(printed).sum { |b, q| b * q } }.map { |q| Mordant::Film::Departure.exposure(Numo::DFloat[q])[0] / Math.log10(2) }
        end.transpose
        greys(step, stops, space).zip(stated).each { |made, wanted| made.zip(wanted).each { |a, b| expect(a).to be_within(0.01).of(b) } }
      end
    end

    it "moves toe, shoulder, straight line and speed of its curve, and prints so that mid grey stays" do
      one = Mordant::Film::Materials.fetch("petrel", "negative").layers[1]
      made = one.shaped(steeper: 1.2, toe: 0.1, shoulder: -0.2, faster: 0.30103)
      expect([made.slope, made.toe, made.shoulder]).to match([1.2 * one.slope, one.toe + 0.1 - 0.30103, one.shoulder - 0.2 - 0.30103].map { |value| be_within(1e-9).of(value) })
      narrow = one.shaped(steeper: 1.0, toe: 3.0, shoulder: -3.0, faster: 0.0)
      expect(narrow.shoulder).to be > narrow.toe
      grey = Numo::DFloat[[space.middle]].tile(3, 1)
      [{speed: 1.0}, {toe: 0.5}, {shoulder: -0.5}, {slope: 1.3}].each do |values|
        step = emulsion(negative: "petrel", print: "fulmar", **values)
        expect((Mordant::Pointwise::Chain.new(step.operations(space)).exact(grey) - grey).abs.max).to be < 2e-3, values.inspect
      end
    end

    it "tells where its curve is taken hold of, on the curve itself" do
      step = emulsion(negative: "petrel", print: "fulmar", exposure: 1.0, flash: 0.05)
      told = step.shapes(count: 961)
      %i[toe shoulder line].each do |name|
        exposure, density = told.fetch(name)
        next unless exposure.between?(-2.4, 2.4)

        nearest = told[:exposure].each_index.min_by { |at| (told[:exposure][at] - exposure).abs }
        expect(told[:negative_green][nearest]).to be_within(0.01).of(density)
      end
      expect(emulsion(exposure: 1.0).shapes(count: 9).keys).not_to include(:toe, :shoulder)
    end

    it "tells a diagram what becomes of greys, as pictures have it" do
      step = emulsion(negative: "gannet", print: "guillemot", exposure: 0.5, warmth: 6, push: 1, flash: 0.05, silver: 0.3, points: [1, 0, 2, 0], limits: 0.7)
      told = step.shapes(count: 97)
      stops = told[:exposure].values_at(20, 48, 70).map { |h| h / Math.log10(2) }
      expect(stops[1]).to be_within(1e-9).of(0)
      made = greys(step, stops, space)
      %i[light_red light_green light_blue].each_with_index { |name, channel| expect(told[name].values_at(20, 48, 70).map { |h| h / Math.log10(2) }).to match(made[channel].map { |stop| be_within(0.01).of(stop) }) }
      expect(told.keys).to eq([:exposure, *%w[negative dyes print light].product(%w[red green blue]).map { |pair| pair.join("_").to_sym }, :toe, :shoulder, :line])
    end

    it "keeps mid grey where it was whatever the material, push and silver, and greys grey within a tenth of a stop" do
      negatives.product(prints).each do |negative, print|
        [{}, {push: 1.5}, {push: -1}, {silver: 0.7}, {coupling: 0}, {limits: 0}].each do |more|
          red, green, blue = greys(emulsion(negative: negative.id, print: print.id, **more), [0.0], space).flatten
          expect([red, green, blue]).to all(be_within(0.01).of(0)), [negative.id, print.id, more].inspect
        end
        next if print.id == "guillemot" # which is warm

        rows = greys(emulsion(negative: negative.id, print: print.id), [-4, -3, -2, -1, 0, 1, 2, 3, 4, 5, 6], space).transpose
        expect(rows.map { |row| row.max - row.min }).to all(be < 0.1), [negative.id, print.id].inspect
      end
    end

    it "acts on finished pictures of a display by the same materials, and rises everywhere" do
      [[space, -8..8], [display, -8..2]].each do |one, range|
        made = greys(emulsion(negative: "petrel", print: "fulmar", silver: 0.3, push: 1), range.to_a, one)
        made.each { |channel| expect(channel.each_cons(2)).to all(satisfy { |a, b| b > a }) }
      end
      # a display's mid grey, 0.1 of its light, is a print's of density 1
      code = display.encode(0.1)
      expect(emulsion(negative: "petrel", print: "fulmar").apply(Numo::SFloat[[code]] * Numo::SFloat[[1.0], [1.0], [1.0]], space: display).to_a.flatten).to all(be_within(2e-3).of(code))
    end

    it "keeps skin on its line, relaxes a print's limits by degrees, and goes part of the way in log exposure by its strength" do
      # light of skins under a neutral lamp, scene-linear AP1, dark to fair
      skins = [[0.055, 0.033, 0.022], [0.16, 0.1, 0.075], [0.35, 0.25, 0.2], [0.55, 0.43, 0.37]]
      hue = ->(light) { light.map { |one| Math.log2(one) }.then { |r, g, b| Math.atan2((g - b) * Math.sqrt(3) / 2, r - (g + b) / 2) * 180 / Math::PI } }
      negatives.product(prints).each do |negative, print|
        codes = Numo::SFloat.cast(skins.map { |skin| skin.map { |one| space.encode(one) } }.transpose)
        made = space.transfer.decode(Numo::DFloat.cast(emulsion(negative: negative.id, print: print.id).apply(codes, space:)))
        skins.each_with_index { |skin, index| expect(hue[made[true, index].to_a] - hue[skin]).to be_between(-8, 8), [negative.id, print.id, skin].inspect }
      end
      tops = [1.0, 0.5, 0.0].map { |limits| greys(emulsion(print: "fulmar", limits:), [8], space)[0][0] }
      expect(tops.each_cons(2)).to all(satisfy { |a, b| b > a + 0.5 })
      whole = Mordant::Grade::Recipe.new("steps" => [{"id" => "a", "kind" => "emulsion", "strength" => 0.5, "parameters" => {"exposure" => 2.0}}])
      code = space.encode(0.18)
      made = Mordant::Grade::Plan.new(recipe: whole, source: "acescct").apply(Mordant::Frame.new(Numo::SFloat[[code]] * Numo::SFloat[[1.0], [1.0], [1.0]], width: 1, height: 1, encoding: "acescct")).rgb[0, 0]
      expect(Math.log2(space.transfer.decode(Numo::DFloat[made])[0] / 0.18)).to be_within(0.002).of(1.0)
    end

    it "goes part of the way in log exposure in light and on displays too" do
      halved = Mordant::Grade::Entry.new({"id" => "a", "kind" => "emulsion", "strength" => 0.5, "parameters" => {"exposure" => 2.0, "negative" => "petrel", "print" => "razorbill"}})
      exposure = {"acescg" => ->(codes) { Numo::NMath.log10(codes / 0.18) },
                  "display" => ->(codes) { Mordant::Film::Departure.exposure(Numo::NMath.log10(display.transfer.decode(codes)) * -1.0) }}
      exposure.each do |name, of|
        one = Mordant::Colour::WorkingSpace.fetch(name)
        codes = Numo::DFloat.cast([0.05, 0.12, 0.18, 0.3, 0.4].map { |light| [one.encode(light)] * 3 }.transpose)
        before, whole, part = [codes, *[halved.alone, halved].map { |entry| Mordant::Pointwise::Chain.new(entry.operations(one)).exact(codes) }].map { |made| of[made] }
        expect((part - (before + whole) * 0.5).abs.max).to be < 2e-3, name
        expect((whole - before).abs.max).to be > 0.1
      end
    end
  end
end

RSpec.describe Mordant::Steps::Emulsion do
  subject { described_class.new({negative: "petrel", print: "fulmar", points: [0, 1, 0, -1]}) }

  include_examples "a pointwise step"
end

RSpec.describe Mordant::Steps::Dyes do
  subject { described_class.new({overall: [4, -2, 1], lights: [0, 6, 0], toned: [0.2, 0, 0], depth: 0.6, saturation: 1.3}) }

  include_examples "a pointwise step"

  def light(values, **parameters) = described_class.new(parameters).apply(Numo::SFloat.cast(values.transpose))

  let(:weights) { Mordant::Colour::WorkingSpace.default.luminance_weights }

  it "keeps the exposure of greys to a hundredth of a stop, whatever dye there is in a zone" do
    stops = (-7..6).to_a
    greys = stops.map { |stop| [0.18 * 2.0**stop] * 3 }
    [{overall: [10, 0, 0]}, {overall: [0, -12, 5]}, {shadows: [8, 0, -8], lights: [-6, 3, 0], middle: [0, 4, 0]}, {saturation: 2.0, depth: 1.0}, {toned: [1, 1, 1], shadows: [0, 5, 0]}].each do |values|
      made = light(greys, **values)
      luminance = (0..2).map { |channel| made[channel, true] * weights[channel] }.reduce(:+).to_a
      expect(luminance.zip(greys).map { |y, (grey)| Math.log2(y / grey).abs }).to all(be < 0.01), values.inspect
    end
  end

  it "takes 0.025 of density a point from red light for cyan, before what keeps the exposure" do
    made = light([[0.18, 0.18, 0.18]], overall: [4, 0, 0]).to_a.flatten
    expect([Math.log10(made[1] / made[0]), Math.log10(made[2] / made[0])]).to all(be_within(1e-4).of(0.1))
    expect(light([[0.18, 0.18, 0.18]], overall: [-4, 0, 0]).to_a.flatten.then { |r, g, _| Math.log10(r / g) }).to be_within(1e-4).of(0.1)
  end

  it "acts in its zone, between limits that can be moved" do
    dark, bright = [0.18 * 2**-6, 0.18 * 2**6]
    made = light([[dark] * 3, [bright] * 3], shadows: [0, 0, 8])
    expect((made[true, 1] - bright).abs.max).to be < 1e-3
    expect(Math.log10(made[0, 0] / made[2, 0])).to be_within(1e-4).of(0.2)
    low = light([[0.18 * 2**-3] * 3], shadows: [0, 0, 8], limits: [-5, 0])
    expect(low[0, 0] / low[2, 0]).to be_within(1e-3).of(1.0)
    expect { described_class.new({limits: [3, -3]}) }.to raise_error(Mordant::ParameterError, /limits/)
  end

  it "moves strong colours alone with depth, darker, and colours denser with saturation" do
    grey, skin, red = [0.2, 0.2, 0.2], [0.35, 0.27, 0.235], [0.5, 0.05, 0.03]
    made = light([grey, skin, red], depth: 1.0)
    expect((made[true, 0] - 0.2).abs.max).to be < 1e-6
    expect((made[true, 1] - Numo::SFloat.cast(skin)).abs.max).to be < 0.01
    expect(Math.log10(red[0] / made[0, 2])).to be_within(1e-3).of(0.3)
    dense = light([red], saturation: 1.5).to_a.flatten
    expect(dense).to match([be_within(1e-4).of(0.5), be_within(1e-4).of(0.5 * 0.1**1.5), be_within(1e-4).of(0.5 * 0.06**1.5)])
    expect(light([grey], saturation: 2.5).to_a.flatten).to all(be_within(1e-5).of(0.2))
  end

  it "is the same in double precision, for tables" do
    light = Numo::SFloat[[0.5, 0.02], [0.05, 0.02], [0.03, 0.021]]
    exact = Mordant::Pointwise::Chain.new(subject.operations(Mordant::Colour::WorkingSpace.default)).exact(Numo::DFloat.cast(light))
    expect((subject.apply(light) - exact).abs.max).to be < 1e-5
  end

  it "gives a zone's own colour up for its dye" do
    made = light([[0.5 * 0.18 * 2**-6, 0.18 * 2**-6, 1.5 * 0.18 * 2**-6]], toned: [1, 0, 0]).to_a.flatten
    expect(made.max / made.min).to be_within(1e-3).of(1.0)
  end
end

RSpec.describe Mordant::Area::Spread do
  include StepPlans

  # A light in the middle of a dark picture, far from its edges.
  def lamp(step)
    rgb = Numo::SFloat.zeros(3, 201 * 301) + 0.01
    rgb[true, 100 * 301 + 150] = 50.0
    frame = Mordant::Frame.new(rgb, width: 301, height: 201, encoding: "acescg")
    [rgb, step.process(Mordant::Colour::WorkingSpace.default).call(rgb, Mordant::Grade::Moment.of(frame))]
  end

  it "neither wins nor loses light" do
    [Mordant::Steps::Halation.new({amount: 0.8, from: 1, colour: [1, 0.4, 0.1]}), Mordant::Steps::Bloom.new({amount: 0.5, size: 0.008})].each do |step|
      before, after = lamp(step)
      3.times { |channel| expect(after[channel, true].sum / before[channel, true].sum).to be_within(2e-3).of(1.0), step.class.id }
      expect(after.min).to be > 0
      expect(after[0, 100 * 301 + 150]).to be < before[0, 100 * 301 + 150]
    end
  end

  it "comes back in a ring, red first" do
    _, after = lamp(Mordant::Steps::Halation.new({amount: 1.0, from: 1, ring: 1.0, size: 0.02, colour: [1, 0.3, 0.05]}))
    red = after.reshape(3, 201, 301)[0, 100, true]
    beside = (red[151..170].to_a.each_with_index.max_by(&:first).last + 1)
    expect(beside).to be_between(2, 6) # about the size of 4 pixels
    expect(red[151]).to be < red[150 + beside]
    around = after.reshape(3, 201, 301)[true, 100, 154] - 0.01
    expect([around[1] / around[0], around[2] / around[0]]).to match([be_within(0.01).of(0.3), be_within(0.01).of(0.05)])
  end
end

RSpec.describe Mordant::Area::Taps do
  it "spreads a point by its Gaussian, and leaves what is even" do
    spot = Numo::SFloat.zeros(21 * 15)
    spot[7 * 21 + 10] = 1.0
    made = described_class.gaussian(1.2).call(spot, Mordant::Grade::Window.whole(21, 15)).reshape(15, 21)
    places = Numo::DFloat.new(21).seq - 10
    expect((Numo::DFloat.cast(made.sum(axis: 0)) * places**2).sum).to be_within(0.08).of(1.44)
    expect(made.sum).to be_within(1e-5).of(1.0)
    expect(described_class.new([1.0, 0.1]).call(Numo::SFloat.zeros(35) + 0.3, Mordant::Grade::Window.whole(7, 5)).to_a).to all(be_within(1e-6).of(0.3))
  end

  it "weighs the neighbours of each pixel, and goes on as the picture ends, also where that is smaller than it reaches" do
    Numo::NArray.srand(8)
    around = {0 => 0.5, 2 => 0.15, -2 => 0.15, 4 => 0.1, -4 => 0.1}
    [[7, 5], [3, 150], [150, 3], [1, 1], [160, 101]].each do |width, height|
      plane = Numo::SFloat.new(height, width).rand
      made = described_class.new([5.0, 1.5, 1.0], apart: 2).call(plane.reshape(plane.size), Mordant::Grade::Window.whole(width, height)).reshape(height, width)
      [[0, 0], [1, 1], [width / 2, height / 2], [width - 1, 0], [width - 2, height - 3], [width - 1, height - 1]].each do |place|
        x, y = place.zip([width, height]).map { |at, size| at.clamp(0, size - 1) }
        sum = around.sum { |down, weight| weight * around.sum { |across, share| share * plane[(y + down).clamp(0, height - 1), (x + across).clamp(0, width - 1)] } }
        expect(made[y, x]).to be_within(1e-6).of(sum), "#{[width, height]} at #{[x, y]}"
      end
    end
  end
end

RSpec.describe Mordant::Steps::Halation do
  subject { described_class.new({amount: 0.8, from: -1.0, size: 0.03, colour: [1, 0.5, 0.2]}) }

  it_behaves_like "an area step"
end

RSpec.describe Mordant::Steps::Bloom do
  subject { described_class.new({amount: 0.6, size: 0.004}) }

  it_behaves_like "an area step"
end

RSpec.describe Mordant::Steps::Grain do
  subject { described_class.new({amount: 1.5, granularity: 8}) }

  it_behaves_like "a step that reaches"

  let(:space) { Mordant::Colour::WorkingSpace.default }

  def grey(width, height, light = 0.18) = Mordant::Frame.new(Numo::SFloat.zeros(3, width * height) + light, width:, height:, encoding: "acescg")

  # Log light of a grey with grain over it.
  def grained(width, height, frame: 5, light: 0.18, **values)
    picture = grey(width, height, light)
    made = described_class.new({amount: 1.0, **values}).at(frame).process(space).call(picture.rgb, Mordant::Grade::Moment.of(picture))
    Numo::NMath.log10(Numo::DFloat.cast(made) / light)
  end

  it "has the spread that Selwyn's law gives, less what particles fill, at two rasters alike" do
    # 35 mm, 960 pixels of 25.9 um: 0.0046 * sqrt(pi) 24 / 25.9, times the square's 0.804 for particles of 9 um
    small, large = grained(960, 270, colour: 0.0)[0, true], grained(1920, 540, colour: 0.0)[0, true]
    expect(small.stddev).to be_within(0.05 * 0.0061).of(0.0046 * Math.sqrt(Math::PI) * 24 / (24_900 / 960.0) * 0.804)
    reduced = large.reshape(270, 2, 960, 2).mean(axis: [1, 3])
    expect(reduced.stddev / small.stddev).to be_within(0.05).of(1.0)
    neighbours = ->(plane) { (plane[true, 0...-1] * plane[true, 1..]).mean / (plane * plane).mean }
    expect(neighbours[reduced] - neighbours[small.reshape(270, 960)]).to be_within(0.1).of(0)
    # of 12.9 um pixels particles fill more: 0.6145 is left
    expect(grained(960, 270, colour: 0.0, gauge: "16 mm")[0, true].stddev / small.stddev).to be_within(0.05).of(24.9 / 12.4 * 0.6145 / 0.8043)
    expect((10**small).mean).to be_within(1e-3).of(1.0)
  end

  it "is another in each frame, the same bits each time, and shows no boundary of a window" do
    recipe = Mordant::Grade::Recipe.new("steps" => [{"id" => "g", "kind" => "grain", "parameters" => {"amount" => 2.0}}])
    expect([recipe.moving?, recipe.at(3).moving?, recipe.stretches(0...9)]).to eq([true, false, [[0...9, true]]])
    picture = Mordant::Frame.new(Numo::SFloat.zeros(3, 96 * 54) + 0.4, width: 96, height: 54, encoding: "acescct")
    at = ->(frame) { Mordant::Grade::Plan.new(recipe:, source: "acescct").at(frame) }
    one, again, other = [3, 3, 4].map { |frame| at[frame].apply(picture).rgb }
    expect(one).to eq(again)
    both = [one, other].map { |rgb| rgb[0, true] - 0.4 }
    expect((both[0] * both[1]).mean.abs / (both[0] * both[0]).mean).to be < 0.05
    expect([3, 4].map { |frame| recipe.at(frame).stamp }.uniq.size).to eq(2)
    moment = Mordant::Grade::Moment.of(picture)
    window = Mordant::Grade::Window.new(left: 17, top: 9, width: 31, height: 20)
    expect(at[3].picture(moment.at(window)).rgb).to eq(window.cut(one, moment.window))
    # sums of four bytes of the hash, as any machine makes them
    expect(Mordant::Film::Speckle.normal(Mordant::Grade::Window.whole(4, 1), 7).to_a.map { |value| (value * Mordant::Film::Speckle::SPREAD + 510).round }).to eq([678, 492, 408, 566])
  end

  it "is none at all where it is nothing, in every way, bit for bit" do
    picture = Mordant::Frame.new(Numo::SFloat.new(3, 96 * 54).seq / 20_000, width: 96, height: 54, encoding: "acescct")
    none = Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new("steps" => []), source: "acescct").apply(picture).rgb
    ways = [{"parameters" => {}}, {"parameters" => {"amount" => 0, "granularity" => 30}}, {"parameters" => {"amount" => 2, "zones" => [0, 0, 0]}}, {"parameters" => {"amount" => 2}, "strength" => 0}, {"parameters" => {"amount" => 2}, "enabled" => false},
      {"parameters" => {"amount" => 2}, "keys" => {"amount" => [{"frame" => 0, "value" => 0}, {"frame" => 9, "value" => 0}]}}, {"parameters" => {"amount" => 2}, "spans" => ["s"]}]
    ways.each do |way|
      recipe = Mordant::Grade::Recipe.new("steps" => [{"id" => "g", "kind" => "grain", **way}], "spans" => [{"id" => "s", "start" => 20, "finish" => 30}])
      expect(Mordant::Grade::Plan.new(recipe:, source: "acescct").at(4).apply(picture).rgb).to eq(none), way.inspect
    end
  end

  it "acts by zone, and for colour as much as is wanted" do
    spread = ->(stops, **values) { grained(200, 200, light: 0.18 * 2.0**stops, colour: 0.0, **values)[0, true].stddev }
    expect([spread[-6, zones: [0, 1, 1]], spread[6, zones: [1, 1, 0]]]).to all(be < 1e-5)
    expect(spread[6, zones: [1, 1, 2]] / spread[0, zones: [1, 1, 2]]).to be_within(0.1).of(2.0)
    apart = ->(colour) { grained(200, 200, colour:).then { |made| (made[0, true] - made[1, true]).stddev / made[0, true].stddev } }
    expect([0.0, 0.5, 1.0].map { |colour| apart[colour] }).to match([0.0, be_within(0.05).of(1.0), be_within(0.05).of(Math.sqrt(2))])
  end
end
