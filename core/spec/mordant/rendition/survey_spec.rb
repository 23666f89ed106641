# frozen_string_literal: true

require "spec_helper"
require "tmpdir"

RSpec.describe Mordant::Rendition::Survey do
  around { |example| Dir.mktmpdir { |folder| (@folder = folder) && example.run } }

  let(:view) { Mordant::Grade::View.new(encoding: "rec2100-pq", rendering: "hdr-video-1000nit-15nit-p3lim-1.1") }
  let(:output) { Mordant::Grade::Output.for(view) }

  def survey(path, frames, *steps, simple: true)
    plan = Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new("steps" => steps), source: "acescct")
    source = Mordant::Deliver::Programme::Source.new(reader: Mordant::Media::Reader.new(path), plan:)
    place = Mordant::Cut::Timeline::Shot.new(key: 1, name: "x", clip: 1, source_in: 2, record_in: 0, length: frames, dissolve: 0, clip_frames: frames + 2, speed: 1.0, phase: 0.0, wipe: nil, clock: 0, manner: {})
    described_class.new(source:, output:, place:, width: 64, height: 36, rate: Rational(24), simple:)
  end

  # cd/m2 of grey of a frame, two stops up.
  def light(number)
    code = Mordant::Colour::Transfer::Acescct.encode(Mordant::Colour::Transfer::Acescct.decode(Numo::DFloat[Footage.code(number) / 65_535.0]) * 4)
    Mordant::Colour::Transfer::PQ.decode(output.chain.exact(Numo::NArray.vstack([code] * 3))[1, true])[0] * 100
  end

  let(:up) { {"id" => "a", "kind" => "balance", "parameters" => {"exposure" => 2.0}} }

  it "reads frames where tables can draw them, and makes exact ones of what they cannot" do
    path = Footage.steps(@folder, frames: 20, name: "a colourist's steps.mkv")
    told = []
    drawn = survey(path, 18, up)
    found = drawn.call { |done| told << done }
    expect([drawn.every, found.course.size, told.last]).to eq([4, 5, drawn.count])
    [2, 6, 10, 14, 18].each_with_index { |number, row| expect(found.course[row]).to all(be_within(0.01 * light(number)).of(light(number))) }
    exact = survey(path, 18, up, {"id" => "b", "kind" => "soften", "parameters" => {"luma" => 0.5}})
    expect(exact).not_to be_drawn
    rows = exact.call { nil }.course
    [2, 6, 10, 14, 18].each_with_index { |number, row| expect(rows[row]).to all(be_within(0.01 * light(number)).of(light(number))) }
  end

  it "leaves bars out, and begins again where some of them turn out to have been darkness" do
    black = (Mordant::Colour::WorkingSpace.default.black * 65_535).round
    path = Footage.written(:bars, @folder, 40, "bars.mkv", []) do |n|
      edge = (n < 20) ? 12 : 6
      Array.new(36) { |row| Array.new(64 * 3, row.between?(edge, 35 - edge) ? Footage.code(7) + 600 * (row % 3) : black) }.flatten
    end
    [true, false].each do |simple|
      found = survey(path, 38, *[up].reject { simple }, simple:).call { nil }
      expect(found.active).to match([0.0, be_within(0.06).of(6 / 36.0), 1.0, be_within(0.12).of(24 / 36.0)])
    end
    drawn = survey(path, 38).call { nil }
    expect(drawn.course.last[0]).to be > 1.0
    expect(drawn.course.first[0]).to be < 0.1 # of what was dark there
  end
end
