# frozen_string_literal: true

require "spec_helper"

# What a screen draws through a lattice under the hand, against the exact picture.
RSpec.describe "The picture under a moving hand" do
  demo = File.expand_path("../../../../demo", __dir__)
  manifest = JSON.parse(File.read(File.join(demo, "manifest.json")))
  view = Mordant::Grade::View::STANDARD

  def lab(display)
    chain = Mordant::Pointwise::Chain.new(Mordant::Colour.encoding("rec709-bt1886").decoding)
    Mordant::Colour::Difference.lab(chain.exact(display.clip(0.0, 1.0))).transpose.to_a
  end

  manifest["shots"].each do |shot|
    it "differs by less than a visible step on shot #{shot["shot"]}" do
      reader = Mordant::Media::Reader.new(File.join(demo, "media", shot["clip"]), rate: Rational(24), range: "legal")
      frame = reader.frame(20, width: 64, height: 36)
      codes = frame.rgb
      plan = Mordant::Grade::Plan.new(source: shot["encoding"],
        recipe: Frames.recipe(exposure: -shot["truth"]["exposure"], contrast: 1.1, temperature: 6, saturation: 1.1))
      output = Mordant::Grade::Output.for(view)
      exact = Numo::DFloat.cast(output.chain.call(plan.chain.from_codes(codes)))
      lattice = Mordant::Grade::Bake.new(plan:, output:, size: 33, domain: frame.domain).lattice
      drawn = Mordant::Pointwise::Chain.new([lattice]).exact(Numo::DFloat.cast(codes) / 65_535)
      differences = lab(exact).zip(lab(drawn)).map { |a, b| Mordant::Colour::Difference.ciede2000(a, b) }
      expect(differences.sum / differences.size).to be < 0.3
    end
  end
end
