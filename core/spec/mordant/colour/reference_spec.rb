# frozen_string_literal: true

require "spec_helper"

# Every conversion there is against the independent numbers, as formulas in double
# precision and through the tables pictures are made with.
RSpec.describe Mordant::Colour::Conversion do
  bounds = {
    "aces-encodings" => {absolute: 1e-5, row: 1e-4}, "camera-log" => {absolute: 1e-5, row: 1e-4},
    "curves" => {absolute: 1e-6, row: 1e-5}, "display-encodings" => {absolute: 2e-5, row: 2e-4}, "output-transforms" => {absolute: 2e-5, row: 1e-3},
    "output-transforms-chained" => {absolute: 5e-4}
  }
  # The display clips at the gamut hull, where the last bit of the light decides.
  near_hull = /lim-1\.1\z/

  bounds.each do |file, bound|
    Reference.conversions(file).each do |entry, conversion|
      context entry["id"] do
        let(:hold) { ->(rows) { file.end_with?("chained") ? rows.map { |row| row.map { |x| x.clamp(0.0, 1.0) } } : rows } }
        let(:wanted) { hold.call(entry["expected"]) }
        let(:inputs) { Numo::DFloat.cast(entry["inputs"]).transpose.dup }
        let(:allowed) { (entry["id"] =~ near_hull && file.end_with?("chained")) ? {absolute: 2e-3} : bound }

        it "agrees as a formula" do
          expect(hold.call(conversion.chain.exact(inputs).transpose.to_a)).to match_rows(wanted, allowed)
        end

        # A twentieth of a 10-bit code is what tables may cost.
        it "agrees through tables" do
          found = conversion.chain.call(Numo::SFloat.cast(inputs)).transpose.to_a
          expect(hold.call(found)).to match_rows(wanted, allowed.merge(absolute: [allowed[:absolute], 5e-5].max))
        end
      end
    end
  end

  it "covers the encodings the demo cameras use, both ways" do
    tested = Reference.conversions("camera-log").flat_map { |_, conversion| [conversion.from.id, conversion.to.id] }
    expect(tested).to include("logc3-ei800-wg3", "s-log3-s-gamut3.cine", "log3g10-wgrgb")
  end

  it "refuses a rendering between encodings it does not lead between" do
    expect { described_class.new(from: "srgb", to: "acescg", rendering: "sdr-video-1.0") }
      .to raise_error(Mordant::ParameterError, /rendering: expected none/)
  end

  it "names what there is when an id is not known" do
    expect { described_class.new(from: "acescg", to: "nowhere") }.to raise_error(Mordant::UnknownIdError, /acescct/)
  end

  it "changes nothing between an encoding and itself, bit for bit" do
    rgb = Numo::SFloat[[-0.1, 0.18, 2.0], [0.5, 1.0, 0.0], [0.2, 0.9, 4.0]]
    expect(described_class.new(from: "acescct", to: "acescct").chain.call(rgb)).to eq(rgb)
  end
end
