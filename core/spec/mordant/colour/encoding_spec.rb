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

  it "puts mid grey where the publications do" do
    grey = {"acescct" => 0.4135884, "acescc" => 0.4135884, "logc3-ei800-wg3" => 0.391007, "s-log3-s-gamut3.cine" => 420.0 / 1023,
            "v-log-v-gamut" => 0.423311, "log3g10-wgrgb" => 0.333333, "c-log2-cinema-gamut" => 0.398, "c-log3-cinema-gamut" => 0.343}
    grey.each do |id, code|
      found = described_class.fetch(id).transfer.encode(Numo::DFloat[0.18])[0]
      expect(found).to be_within(id.start_with?("c-log") ? 1e-3 : 2e-5).of(code), id
    end
  end
end
