# frozen_string_literal: true

require_relative "spec_helper"

# What the front end says of answers (web/src/api), held against real ones: every key that an answer
# has is declared, and every one that is declared and not optional is there.
RSpec.describe "What the front end takes answers for", type: :request do
  let(:folder) { File.join(Server::ROOT, "web/src/api") }

  # @return [Hash{String => Hash{String => Boolean}}] keys of each interface, and whether it needs them
  let(:interfaces) do
    found = Dir[File.join(folder, "*.ts")].flat_map { |path| File.read(path).scan(/^export interface (\w+)(?: extends (\w+))? \{\n(.*?)^\}/m) }
    own = found.to_h { |name, from, body| [name, [from, body.scan(/^  ['"]?(\w+)['"]?(\??):/).to_h { |key, optional| [key, optional.empty?] }]] }
    own.to_h { |name, (from, keys)| [name, (from ? own.fetch(from).last : {}).merge(keys)] }
  end

  let(:cut) { Studio.cut(@folder) }

  def get_json(path)
    call(:get, path)
    expect(last_response.status).to eq(200), path
    json
  end

  def hold(name, answer)
    keys = interfaces.fetch(name)
    expect(answer).to be_a(Hash), name
    expect([name, answer.keys - keys.keys, keys.select { |_, needed| needed }.keys - answer.keys]).to eq([name, [], []])
  end

  it "is a catalogue of what the core declares" do
    catalogue = get_json("/catalogue")
    hold("Catalogue", catalogue)
    catalogue["steps"].each { |step| hold("StepSpec", step) }
    catalogue["contributors"].each { |kind| hold("ContributorSpec", kind) }
    catalogue["refinements"].each { |kind| hold("DeclaredSpec", kind) }
    catalogue["uses"].each { |use| hold("ShapeUse", use) }
    of = ->(key) { (catalogue["steps"] + catalogue["contributors"]).flat_map { |one| one[key] } }
    {"parameters" => "ParameterSpec", "texts" => "TextSpec", "curves" => "CurveSpec", "rows" => "RowsSpec"}.each { |key, name| of[key].each { |spec| hold(name, spec) } }
    catalogue["encodings"].each { |one| hold("Encoding", one) }
    catalogue["formats"].each { |one| hold("OutputFormat", one) }
    catalogue["materials"].each { |one| hold("Material", one) }
    catalogue.values_at("looks", "bundles").flatten.each { |one| hold("Look", one) }
  end

  it "is a cut with its shots, clips, recipes, washes and families" do
    shot = cut.loaded_shots.first
    shot.recipe.accept(revision: 0, words: "x", document: {"spans" => [{"id" => "s", "start" => 0, "finish" => 3}], "bundles" => [{"id" => "f"}], "steps" => [{"id" => "a", "kind" => "balance", "braid" => "b", "bundle" => "f", "spans" => ["s"], "keys" => {"exposure" => [{"frame" => 1, "value" => 1, "ease" => "smooth", "in" => 1, "out" => 0}]},
                                                                                                                                                               "matte" => {"contributors" => [{"id" => "e", "kind" => "ellipse", "name" => "face", "keys" => {"radii" => [{"frame" => 1, "value" => [0.2, 0.2]}]}}], "refinements" => [{"id" => "b", "kind" => "blur"}]}}]})
    call(:post, "/cuts/#{cut.id}/washes", {name: "Warm", words: "x"})
    call(:post, "/cuts/#{cut.id}/families", {name: "Jetty", shots: [shot.id], words: "x"})
    whole = get_json("/cuts/#{cut.id}")
    hold("Cut", whole)
    hold("Project", whole["project"])
    whole["shots"].each { |one| [["Shot", one], ["Clip", one["clip"]], ["Recipe", one["recipe"]]].each { |name, answer| hold(name, answer) } }
    step = whole["shots"][0]["recipe"]["document"]["steps"][0]
    hold("StepDocument", step)
    hold("CourseKey", step["keys"]["exposure"][0])
    hold("SpanDocument", whole["shots"][0]["recipe"]["document"]["spans"][0])
    hold("BundleDocument", whole["shots"][0]["recipe"]["document"]["bundles"][0])
    hold("MatteDocument", step["matte"])
    hold("ContributorDocument", step["matte"]["contributors"][0])
    hold("RefinementDocument", step["matte"]["refinements"][0])
    whole["washes"].each { |wash| hold("Wash", wash) }
    whole["families"].each { |family| hold("Family", family) }
    expect([whole["washes"].size, whole["families"].size]).to eq([1, 1])
  end

  it "is renditions with what is measured and corrected of shots" do
    cut.project.update!(targets: cut.project.targets + Server::Demo::TARGETS)
    call(:post, "/cuts/#{cut.id}/measurements", {})
    work_off
    call(:post, "/shots/#{cut.loaded_shots.first.id}/corrections", {})
    hold("Recipe", json["recipe"])
    list = get_json("/cuts/#{cut.id}/renditions")
    hold("RenditionList", list)
    [list["hdr"], *list["targets"]].each { |target| hold("Target", target) }
    list["shots"].each { |line| hold("ShotRendition", line) }
    list["listed"].each { |screen| hold("ListedScreen", screen) }
    get_json("/catalogue")["corrections"].each { |kind| hold("StepSpec", kind) }
  end

  it "is lists of projects, clips, orders, presets and errands" do
    cut
    get_json("/projects").each { |project| hold("ProjectSummary", project) }
    get_json("/projects/#{cut.project_id}/clips").each { |clip| hold("Clip", clip) }
    call(:post, "/cuts/#{cut.id}/orders", {outputs: [{"format" => "h264", "target" => "television"}], template: "{project}"})
    hold("Order", json)
    json["outputs"].each { |output| hold("Output", output) }
    get_json("/presets").each { |preset| hold("OrderPreset", preset) }
    hold("ProjectSettings", get_json("/projects/#{cut.project_id}/settings"))
    expect(interfaces.size).to be > 40
  end

  it "is people, where they are, links and notes" do
    call(:get, "/here")
    hold("Here", json)
    call(:put, "/presence", {window: "w", room: "bench", project: cut.project_id})
    hold("PresentWindow", JSON.parse(Server::Presence.there([cut.project_id])[cut.project_id][0].to_json))
    call(:post, "/cuts/#{cut.id}/reviews", {name: "Producer"})
    hold("ReviewLink", json)
    secret = json["address"].delete_prefix("/review/")
    call(:post, "/reviews/#{secret}/notes", {frame: 1, words: "x", by: "Orla", mark: {kind: "point", from: [0, 0], to: [0, 0]}})
    call(:post, "/cuts/#{cut.id}/notes", {answers: json["id"], words: "y"})
    sheet = get_json("/reviews/#{secret}")
    hold("ReviewSheet", sheet)
    hold("ShotNote", sheet["notes"][0])
    hold("NoteMark", sheet["notes"][0]["mark"])
    hold("NoteAnswer", sheet["notes"][0]["answers"][0])
    person = Server::Person.made("name" => "Ida", "role" => "administer", "password" => "ferry at low tide")
    hold("Person", JSON.parse(person.to_h.to_json))
    hold("SignIn", JSON.parse(Server::SignIn.begin(person, address: "x", browser: "x").first.to_h.to_json))
  ensure
    Server::Person.forget
  end

  it "is screens, the sessions that measured them, and a report" do
    screen = Server::Screen.made({"name" => "Desk", "screen" => "127.0.0.1:1", "probe" => "127.0.0.1:2"})
    clock = Mordant::Calibration::Clock::Counted.new
    device = Mordant::Calibration::StandIn::Screen.new({"black" => 0.001}, clock:)
    measured = Mordant::Calibration::Session.new(screen: device, probe: Mordant::Calibration::StandIn::Probe.new({}, screen: device, clock:), clock:, settings: Mordant::Calibration::Settings.new)
    report = JSON.parse(measured.run.to_h.to_json)
    Server::Calibration.create!(screen:, settings: screen.settings, status: "done", journal: measured.journal, report:, figures: Server::Calibration.figures(report), showing: {codes: [1, 1, 1], shown: [1, 1, 1]})
    list = get_json("/screens")
    hold("ScreenList", list)
    list["targets"].each { |target| hold("ScreenTarget", target) }
    hold("OwnScreen", list["screens"][0])
    hold("ScreenSettings", list["screens"][0]["settings"])
    session = list["screens"][0]["sessions"][0]
    hold("ScreenSession", session)
    hold("SessionFigures", session["figures"])
    session["figures"].values_at("before", "after").each { |side| hold("SideFigures", side) }
    full = get_json("/calibrations/#{session["id"]}")
    hold("FullSession", full)
    hold("ScreenReport", full["report"])
    full["report"].values_at("before", "after").each do |side|
      hold("JudgedSide", side)
      side["patches"].each { |patch| hold("JudgedPatch", patch) }
    end
  end
end
