# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Scopes::Banding do
  let(:width) { 480 }
  let(:height) { 120 }
  let(:random) { Random.new(9) }

  # A ramp over so many 8-bit codes, with noise of so many 10-bit codes, counted in so many bits.
  def ramp(bits:, noise: 0.0, codes: 12, slant: 0.15)
    rows = (Numo::DFloat.new(1, width).seq + Numo::DFloat.new(height, 1).seq * slant) * (codes / 255.0 / width) + 0.4
    rows += Numo::DFloat.cast(Array.new(width * height) { (random.rand + random.rand - 1) * noise * 2 / 1023 }).reshape(height, width) if noise.positive?
    bits ? (rows * (2**bits - 1)).round / (2**bits - 1) : rows
  end

  def frame(rows, encoding: "rec709-bt1886") = Mordant::Frame.new(Numo::SFloat.cast(rows.reshape(1, rows.size).tile(3, 1)), width: rows.shape[1], height: rows.shape[0], encoding:)

  def share(rows) = Mordant::Scopes::Banding.share(Mordant::Scopes::Signal.new(frame(rows)))

  it "finds the breaks of ramps of 8 and 10 bits, all along them and nothing else" do
    [8, 10].each do |bits|
      rows = ramp(bits:, codes: (bits == 8) ? 12 : 4)
      marked = described_class.places(Mordant::Scopes::Signal.new(frame(rows))).reshape(height, width)
      steps = Numo::SFloat.cast((rows[true, 1..] - rows[true, 0...-1]).abs > 1e-6)
      inner = [10...(height - 10), 10...(width - 11)]
      true_ones = (marked[*inner] * steps[*inner]).sum
      expect(true_ones / steps[*inner].sum).to be > 0.95, bits.to_s
      expect((marked[true, 0...-1] * (steps * -1.0 + 1.0)).sum / (width * height)).to be < 0.02
    end
  end

  it "finds none in ramps with noise or dither, in continuous ones, steep ones, edges and flat areas" do
    {noisy: ramp(bits: 8, noise: 3.0), dithered: ramp(bits: 10, noise: 1.0, codes: 4), smooth: ramp(bits: nil), steep: ramp(bits: 8, codes: 200), flat: ramp(bits: 8, codes: 0, slant: 0)}.each do |name, rows|
      expect(share(rows)).to be < 0.001, name.to_s
    end
    edge = ramp(bits: nil, codes: 0, slant: 0)
    edge[true, 200..] = edge[true, 200..] + 0.05
    expect(share(edge)).to eq(0.0)
  end

  it "finds them in real skies that are rounded to 8 bits, and none in those that are dithered or smooth" do
    clip = File.expand_path("../../../../demo/media/heron/H014/H014_1B.mov", __dir__)
    codes = Mordant::Media::Reader.new(clip, rate: 24r, range: "legal").frame(10, width: 960, height: 540)
    television = Mordant::Colour::Conversion.new(from: "logc3-ei800-wg3", to: "rec709-bt1886", rendering: "sdr-video-1.0").chain.from_codes(codes.rgb)
    whole, blur = Mordant::Grade::Window.whole(960, 540), Mordant::Area::Gaussian.new(3.0)
    smooth = Numo::NArray.vstack((0..2).map { |channel| blur.call(television[channel, true].dup, whole) })
    Numo::NArray.srand(4)
    rounded, dithered = [0.0, 1.0].map { |by| Numo::SFloat.cast((smooth * 255 + (Numo::SFloat.new(*smooth.shape).rand - 0.5) * by).round) / 255 }
    shares = [rounded, dithered, smooth].map { |rgb| described_class.share(Mordant::Scopes::Signal.new(Mordant::Frame.new(rgb, width: 960, height: 540, encoding: "rec709-bt1886"))) }
    expect(shares).to match([be > 0.01, be < 0.0003, be < 0.0001])
  end

  it "marks them in the picture and leaves all else as it is" do
    picture = frame(ramp(bits: 8))
    places = described_class.places(Mordant::Scopes::Signal.new(picture))
    painted = described_class.paint(picture, Mordant::Scopes::Signal.new(picture))
    changed = (painted.rgb - picture.rgb).abs.max(axis: 0) > 0
    expect(Numo::SFloat.cast(changed)).to eq(places)
    expect(places.mean).to be > 0.01
  end

  describe Mordant::Steps::SmoothBanding do
    def mended(rows, **parameters)
      moment = Mordant::Grade::Moment.new(width:, height:) { nil }
      described_class.new({amount: 1.0, step: 1.1 / 255, size: 0.1}.merge(parameters)).process(nil).call(frame(rows).rgb, moment)[0, true].reshape(height, width)
    end

    it "mends a ramp of 8 bits within the step it breaks by, so that no break is found" do
      broken, smooth = ramp(bits: 8, codes: 40), ramp(bits: nil, codes: 40)
      made = mended(broken)
      inside = [true, 60...-60]
      error = ->(rows) { Math.sqrt(((Numo::DFloat.cast(rows) - smooth)[*inside]**2).mean) }
      expect(error[made]).to be < 0.3 * error[broken]
      expect((made - broken).abs.max).to be <= 1.1 / 255 + 1e-6
      expect([share(broken), share(made)]).to match([be > 0.01, be < 0.001])
    end

    it "leaves edges and pattern alone, and is nothing without an amount" do
      edge = ramp(bits: nil, codes: 0, slant: 0)
      edge[true, 200..] = edge[true, 200..] + 0.1
      expect((mended(edge) - edge).abs.max).to be < 1e-6
      expect(described_class.new({}).neutral?).to be(true)
    end
  end
end
