# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Colour::Encoding do
  described_class.all.select(&:pictures?).each do |encoding|
    context encoding.id do
      # Codes that are published with a floor or a ceiling, or hardly any light, are left out.
      range = {"acesproxy10" => 0.1..0.9, "adx10" => 0.1..0.9, "adx16" => 0.03..0.9, "rec2100-hlg-1000nit" => 0.1..0.99}.fetch(encoding.id, 0.002..0.998)
      let(:codes) { Numo::DFloat.new(400).seq / 399 * (range.end - range.begin) + range.begin }
      let(:rgb) { Numo::NArray.vstack([codes, codes, codes]) }

      it "comes back from its connection space" do
        chain = Mordant::Pointwise::Chain.new(encoding.decoding + encoding.encoding)
        expect((chain.exact(rgb) - rgb).abs.max).to be < (encoding.id.start_with?("adx") ? 1e-6 : 1e-9)
      end

      it "keeps NaN and does not raise on infinities" do
        next expect(encoding).to be_linear if encoding.decoding.empty?

        odd = Numo::SFloat[[Float::NAN, Float::INFINITY, -Float::INFINITY], [0.2, 0.2, 0.2], [0.2, 0.2, 0.2]]
        out = Mordant::Pointwise::Chain.new(encoding.decoding).call(odd)
        expect(out[true, 0].isnan.any?).to be_truthy
      end

      it "says where it is published" do
        expect(encoding.source).not_to be_empty
      end
    end
  end

  # 10-bit codes of 18 % grey and of 90 % white, and light at code 1.0, as published
  # (rounded as printed there); nil where none is printed.
  published = {
    "acescct" => [423, nil, 222.86], "acescc" => [423, nil, 222.86],
    "logc3-ei160-wg3" => [400, nil, nil], "logc3-ei800-wg3" => [400, nil, 55.08], "logc3-ei1600-wg3" => [400, nil, nil],
    "logc4-wg4" => [285, nil, 469.8],
    "s-log-s-gamut" => [394, 636, nil], "s-log2-s-gamut" => [347, 582, nil], "s-log3-s-gamut3" => [420, 598, 38.42],
    "c-log-cinema-gamut" => [351, 614, nil], "c-log2-cinema-gamut" => [407, 575, nil], "c-log3-cinema-gamut" => [351, 577, nil],
    "v-log-v-gamut" => [433, 602, 46.09], "log3g10-wgrgb" => [341, nil, 184.32],
    "f-log-f-gamut" => [470, 705, nil], "f-log2-f-gamut" => [400, 570, nil], "n-log-n-gamut" => [372, nil, 14.78],
    "l-log-rec2020" => [445, nil, nil], "d-log-d-gamut" => [408, nil, 42.0], "film-gen5-wide-gamut-gen5" => [392, nil, 222.86],
    "rec709-camera" => [418, nil, 1.0], "rec2100-hlg-camera" => [387, nil, nil]
  }

  published.each do |id, (grey, white, ceiling)|
    it "puts mid grey, white and the end of #{id} where its publication does" do
      encoding = described_class.fetch(id)
      code = ->(light) { encoding.transfer.encode(Numo::DFloat[light])[0] * 1023 }
      expect(encoding.mid_grey * 1023).to be_within(0.55).of(grey)
      expect(code[0.9]).to be_within(0.6).of(white) if white
      expect(encoding.ceiling).to be_within(0.0006 * ceiling).of(ceiling) if ceiling
    end
  end

  it "joins the pieces of every camera curve" do
    described_class.all.select(&:scene?).each do |encoding|
      light = Numo::DFloat.new(3001).seq / 1e5
      codes = encoding.transfer.encode(light)
      steps = codes[1..] - codes[0...-1]
      next if %w[l-log-rec2020 acescc logfilm-wgrgb].include?(encoding.id) # printed apart by a code; of infinite slope at 0

      expect(steps.min).to be > -2e-5, encoding.id
      expect((steps[1000..] - steps[999...-1]).abs.max).to be < 1e-4, encoding.id
    end
  end
end
