# frozen_string_literal: true

require "spec_helper"

# Nothing is quantised between steps: what differs by far less than a code before them does so after them.
RSpec.describe Mordant::Grade::Plan do
  let(:side) { 128 }
  let(:finest) { 2.0**-18 } # between neighbours of the ramp; a sixty-fourth of a 12-bit code

  # Log codes that rise by as little from pixel to pixel, about mid grey, slightly coloured.
  def ramp
    rise = Numo::DFloat.new(side * side).seq * finest + 0.38
    Mordant::Frame.new(Numo::SFloat.cast(Numo::NArray.vstack([rise, rise + 0.01, rise - 0.01])), width: side, height: side, encoding: "acescct")
  end

  def graded(*steps) = described_class.new(recipe: Mordant::Grade::Recipe.new("steps" => steps.each_with_index.map { |step, at| {"id" => "s#{at}", **step} }), source: "acescct").apply(ramp).rgb

  # How many different values there are, of those that there were.
  def kept(rgb) = (0..2).map { |channel| rgb[channel, true].to_a.uniq.size.fdiv(ramp.rgb[channel, true].to_a.uniq.size) }.min

  def balance(exposure, **more) = {"kind" => "balance", "parameters" => {"exposure" => exposure}, **more}

  it "keeps all values apart through steps of every domain and reach, with and without mattes, that take back what others do" do
    everywhere = {"contributors" => [{"id" => "m", "kind" => "ellipse", "mode" => "add", "softness" => 0.0, "parameters" => {"softness" => 0.1}}], "strength" => 1.0}
    steps = [balance(-6.0), balance(6.0), {"kind" => "noise", "parameters" => {"luma" => 0.0, "colour" => 0.0, "frames" => 2}}, {"kind" => "soften", "strength" => 0.001, "parameters" => {}}, balance(2.0, "strength" => 0.5), balance(-2.0, "strength" => 0.5), balance(1.0, "matte" => everywhere), balance(-1.0, "matte" => everywhere)]
    made = graded(*steps)
    expect(kept(made)).to be > 0.98
    expect((made - ramp.rgb).abs.max).to be < 4 * finest
  end

  # Those that take fine differences away on purpose, or add what is not in the picture.
  purpose = %w[smooth_banding noise grain gate halation bloom]

  (Mordant::Steps.all.reject(&:reads_files?).map { |kind| kind.id.to_s } - purpose).each do |kind|
    it "keeps values apart through #{kind}" do
      example = (kind == "cdl") ? {"slope" => [1.1, 1.0, 0.9], "offset" => [0.01, 0.0, 0.0], "power" => [1.05, 1.0, 0.95]} : Mordant::Grade::Handbook.example(Mordant::Steps.fetch(kind))
      expect(kept(graded({"kind" => kind, "parameters" => example}))).to be > 0.9
    end
  end
end
