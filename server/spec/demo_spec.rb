# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe Server::Demo do
  let(:manifest) { JSON.parse(File.read(File.join(described_class::FOLDER, "manifest.json"))) }

  # One load for all that is in it, as it takes every clip in.
  it "is a cut of twelve shots to grade and one that is finished, with HDR targets and lists, loaded once and removed whole" do
    project = described_class.load
    cut, finished = project.cuts.order(:id).to_a
    expect(cut.loaded_shots.map(&:name)).to eq(manifest["shots"].map { |shot| shot["shot"] })
    expect(cut.loaded_shots.map { |shot| shot.clip.encoding }).to eq(manifest["shots"].map { |shot| shot["encoding"] })
    expect(cut.loaded_shots.count { |shot| shot.dissolve.positive? }).to eq(1)
    expect(cut.timeline.length).to eq(manifest["shots"].sum { |shot| shot["for"] })
    expect(described_class.load).to be_nil
    expect(project.hdr.id).to eq("hdr")
    expect(cut.renditions.targets.map { |target| target.view.aim.peak }).to eq([100.0, 600.0])
    expect(Server::Shot.where(id: Server::Errand.last.wish["shots"]).pluck(:name)).to match_array(manifest["shots"].select { |shot| shot["scene"] == 3 }.map { |shot| shot["shot"] })
    expect_finished(finished)
    expect_lists(project, cut)
    project.remove
    expect([Server::Project, Server::Cut, Server::Path, Server::Note, Server::Recipe].map(&:count)).to all(eq(0))
  end

  # Graded to the end, each step named after its reason, with everything there is.
  def expect_finished(cut)
    recipes = cut.loaded_shots.flat_map(&:recipes) + cut.loaded_washes.map(&:recipe) + cut.loaded_families.flat_map(&:recipes)
    steps = recipes.flat_map { |recipe| recipe.document["steps"] }
    expect(cut.loaded_shots.map { |shot| shot.recipe.document["steps"].size }).to all(be >= 1)
    kinds = Mordant::Steps.all.to_h { |kind| [kind.id, kind.label] }
    expect(steps.map { |step| step["name"] }).to all(be_a(String)) & all(match(/ /))
    expect(steps.select { |step| step["name"] == kinds[step["kind"]] }).to eq([])
    expect(steps.map { |step| step["kind"] }.uniq).to include("balance", "zones", "curves", "dyes", "emulsion", "halation", "grain", "noise", "detail")
    parts = steps.filter_map { |step| step["matte"] }.flat_map { |matte| matte["contributors"] }
    expect(parts.map { |part| part["kind"] }.uniq).to include("ellipse", "gradient", "key", "luminance")
    expect(parts.filter_map { |part| part.dig("path", "id") }).to eq(cut.paths.map(&:id))
    expect([steps.count { |step| step["keys"] }, steps.count { |step| step["spans"] }, recipes.count { |recipe| recipe.document["bundles"] }, cut.loaded_washes.size, cut.loaded_families.size]).to eq([1, 1, 1, 2, 3])
    expect(cut.loaded_shots.first.recipes.map(&:name)).to eq(["First light", "Colder morning"])
    expect(Server::Note.shown(cut)).to match([include(closed: true, answers: [include(by: "colourist")])])
  end

  # Lists of it in two formats, and a second version that differs as it says.
  def expect_lists(project, cut)
    list = ->(name) { {"list" => {"name" => name, "text" => File.read(File.join(described_class::FOLDER, name))}} }
    %w[salt_lantern.edl salt_lantern.otio].each do |name|
      expect(Server::Conforming.new(project, list[name]).recut(cut).differences.map(&:kind).uniq).to eq(["kept"]), name
    end
    truth = JSON.parse(File.read(File.join(described_class::FOLDER, "edit.json")))["second"]
    names = cut.shots.pluck(:id, :name).to_h
    found = Server::Conforming.new(project, list["salt_lantern_2.edl"]).recut(cut).differences.group_by(&:kind)
    expect(%w[trimmed moved gone].to_h { |kind| [kind, found[kind].map { |one| names[one.before.key] }] }).to eq(truth.slice("trimmed", "moved", "gone"))
    expect(found["new"].map { |one| {"clip" => Server::Clip.find(one.after.clip).take, "in" => one.after.source_in, "for" => one.after.length} }).to eq(truth["new"])
  end

  it "has in its cut list what is in the cut" do
    list = File.read(File.join(described_class::FOLDER, "salt_lantern.edl"))
    events = list.lines.grep(/\A\d{3}  \S+ +V +[CD]/)
    expect(events.size).to eq(manifest["shots"].size + 1)
    expect(events.last).to match(/D    012 .*01:00:19:18 01:00:21:22/)
  end

  it "has a second camera in every scene, and two encodings or more" do
    cameras = manifest["shots"].group_by { |shot| shot["scene"] }.transform_values { |shots| shots.map { |shot| shot["camera"] }.uniq.size }
    expect(cameras.values).to all(be >= 2)
    expect(manifest["shots"].map { |shot| shot["encoding"] }.uniq.size).to be >= 2
    truths = manifest["shots"].to_h { |shot| [shot["shot"], shot["truth"]] }
    expect(truths.values.map { |truth| truth["exposure"] }.minmax).to match([be <= -1.5, be >= 1.0])
    expect(truths.values.map { |truth| truth["white"][2] / truth["white"][0] }.max).to be > 1.5
    expect(truths["3A"]["noise"][1]).to be > truths["1A"]["noise"][1] * 1.5
  end

  # The truth is for specs: what was done to a shot must be in its file.
  it "was photographed with the errors the manifest states" do
    grey = lambda do |name, frame|
      shot = manifest["shots"].find { |one| one["shot"] == name }
      path = File.join(described_class::MEDIA, shot["clip"])
      codes = Mordant::Media::Reader.new(path, rate: Rational(24), range: "legal").frame(frame, width: 480, height: 270)
      light = Mordant::Pointwise::Chain.new(Mordant::Colour.encoding(shot["encoding"]).decoding).from_codes(codes.rgb)
      [shot, light.median(axis: 1).to_a]
    end
    under, dark = grey.call("1C", 20)
    normal, bright = grey.call("1B", 20)
    stops = Math.log2(dark[1] / bright[1])
    expect(stops).to be_within(0.6).of(under["truth"]["exposure"] - normal["truth"]["exposure"])
    expect(Dir.glob(File.join(described_class::MEDIA, "**/*.mov")).sum { |file| File.size(file) }).to be < 60_000_000
  end
end
