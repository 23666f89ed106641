# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe Server::Timelines do
  around { |example| Dir.mktmpdir { |folder| (@folder = File.realpath(folder)) && example.run } }

  let(:timelines) { described_class.new }
  let(:cut) { Studio.cut(@folder) }
  let(:shot) { cut.loaded_shots.first }

  def made = timelines.of(Server::Cut.find(cut.id))

  it "are those of the shots as they stand, to the last bit" do
    cut.loaded_shots[1].update!(speed: -1.0 / 3, phase: 0.1, source_in: 6, wipe: 2, manner: {"curve" => "measured", "shares" => [0.25, 0.7]}, clock: 3)
    expect(made.shots.map(&:to_h).map { |place| place.merge(manner: place[:manner].to_h) }).to eq(Server::Cut.find(cut.id).loaded_shots.map { |one| one.place.to_h.merge(manner: one.place.manner.to_h) })
    expect(made.shots[1].to_h.values_at(:speed, :phase)).to eq([-1.0 / 3, 0.1])
    expect(made.shots[0].to_h.values_at(:speed, :phase).map(&:class)).to eq([Float, Float])
  end

  it "are made once, and anew as soon as anything of it is another" do
    first = made
    expect(made).to be(first)
    changes = {name: "another", source_in: 0, length: 5, dissolve: 1, clock: 2}
    seen = changes.map { |name, value| cut.loaded_shots[1].update!(name => value) && made }
    expect([first, *seen].uniq(&:object_id).size).to eq(changes.size + 1)
    shot.clip.update!(frames: 30)
    expect(made.shots[0].clip_frames).to eq(30)
    Server::Shot.find(cut.loaded_shots[1].id).update!(position: nil)
    expect(made.shots.map(&:key)).to eq([shot.id])
  end

  it "see what a transaction has done, and that it was given up" do
    before = made
    Server::Record.transaction do
      shot.update!(name: "other")
      expect(made.shots[0].name).to eq("other")
      raise ActiveRecord::Rollback
    end
    expect(made).to be(before)
  end

  it "are empty of a cut without shots, and refuse one that does not hold" do
    expect(timelines.of(Server::Cut.create_named!(cut.project, "None")).length).to eq(0)
    shot.update!(length: 7)
    2.times { expect { made }.to raise_error(Mordant::ParameterError, /to begin at 7/) }
  end
end
