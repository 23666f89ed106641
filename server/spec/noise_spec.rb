# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "Noise", type: :request do
  around { |example| Dir.mktmpdir { |folder| (@folder = File.realpath(folder)) && example.run } }

  let(:cut) { Studio.cut(@folder, footage: :noisy) }
  let(:shot) { cut.loaded_shots.first }
  let(:noise) { {"id" => "n", "kind" => "noise", "parameters" => {"luma" => 1.0, "colour" => 1.0, "frames" => 2}} }

  def store(*steps) = Server::Recipe.find(shot.recipe.id).then { |recipe| recipe.accept(revision: recipe.revision, document: {"steps" => steps}, words: "x") }

  def wish(frame, **more) = Server::Pictures::Wish.new(cut: Server::Cut.find(cut.id), frame:, screen: Server::Screens.of(cut.project, nil), **more)

  def seen(frame, **more) = Server::Pictures::Desk.current.picture(wish(frame, **more)).first.rgb

  it "is looked at by what it takes, about middle grey and amplified" do
    store(noise)
    plain = seen(2, trial: {shot.recipe.id => Mordant::Grade::Recipe.new("steps" => [])})
    expect((plain - seen(2)).abs.mean).to be > 2e-3
    space = Mordant::Colour::WorkingSpace.default
    [nil, 16].each do |gain|
      wanted = ((plain - seen(2)) * (gain || 8) + space.middle).clip(space.black, space.white)
      expect((seen(2, adds: "n", gain:) - wanted).abs.max).to be < 1e-5
    end
    call(:post, "/cuts/#{cut.id}/picture", {frame: 2, adds: "n", taken_gain: 100})
    expect([last_response.status, json["path"]]).to eq([422, "gain"])
  end

  it "is measured over the shot, or in a patch that somebody points at" do
    store(noise)
    rows = [{}, {region: [0.1, 0.1, 0.6, 0.7]}].map { |more| call(:post, "/shots/#{shot.id}/noise", {frame: 2, step: "n", **more}) && json["profile"] }
    rows.each { |found| expect(Mordant::Steps::Noise.new({"profile" => found}).profile.size).to eq(found.size) }
    call(:post, "/shots/#{shot.id}/noise", {frame: 2, step: "n", region: [0.5, 0.5, 0.01, 0.01]})
    expect([last_response.status, json["path"]]).to eq([422, "region"])
    document = {"steps" => [noise.merge("parameters" => noise["parameters"].merge("profile" => rows[0]))]}
    call(:post, "/cuts/#{cut.id}/picture", {frame: 2, trial: [{recipe: shot.recipe.id, document:}]})
    told = JSON.parse(last_response.body.b[4, last_response.body.unpack1("L<")])
    expect(told["shapes"]["n"].keys).to include("levels", "luma_0", "v_3")
  end

  it "tells where tones break, and marks it in the picture" do
    call(:post, "/cuts/#{cut.id}/picture", {frame: 2, breaks: true})
    told = JSON.parse(last_response.body.b[4, last_response.body.unpack1("L<")])
    expect(told["breaks"]).to be_between(0, 1)
    call(:post, "/cuts/#{cut.id}/picture", {frame: 2})
    expect(JSON.parse(last_response.body.b[4, last_response.body.unpack1("L<")])).not_to have_key("breaks")
  end

  it "is delivered as it is seen, at the ends of a clip too, and stands in parts of a picture as in the whole" do
    store(noise)
    delivered = [].tap { |list| Server::Cut.find(cut.id).programme.each(first: 0, count: 8) { |frame, _| list << frame.rgb } }
    [0, 3, 7].each { |frame| expect((delivered[frame] - seen(frame)).abs.max).to be < 1e-5 }
    part = Server::Pictures::Desk.current.part(wish(3, raster: [64, 36]), Mordant::Grade::Window.new(left: 20, top: 10, width: 16, height: 12)).first.rgb.reshape(3, 12, 16)
    expect((part - delivered[3].reshape(3, 36, 64)[true, 10...22, 20...36]).abs.mean).to be < 1e-3
  end

  describe "kept" do
    let(:exposure) { {"id" => "e", "kind" => "balance", "parameters" => {"exposure" => 0.5}} }

    def spans = call(:get, "/cuts/#{cut.id}/cleaned").then { json }

    def unpacked
      data, at = last_response.body.b, 4 + last_response.body.unpack1("L<")
      header = JSON.parse(data[4...at])
      [header, header["parts"].to_h { |part| [part["name"], data[at, part["length"]].tap { at += part["length"] }] }]
    end

    it "shows the same as made anew, is good for whatever follows it, and stale of what changes it" do
      store(noise, exposure)
      anew = Server::Pictures::Desk.current.plan(cut.project, wish(3).recipe_of(wish(3).shot), shot.clip.code_encoding).picture(Server::Pictures::Desk.current.moment(wish(3), "full")).rgb
      expect(spans["spans"]).to eq([])
      2.times { expect((seen(3) - anew).abs.max).to be < 1e-4 } # a half float of what is taken, which is below 0.1
      expect(spans.slice("wanted", "spans")).to eq("wanted" => 10, "spans" => [[3, 1]])
      expect(seen(3, trial: {shot.recipe.id => Mordant::Grade::Recipe.new("steps" => [noise])})).not_to eq(seen(3))
      store(noise, exposure.merge("parameters" => {"exposure" => -1.0}))
      expect(spans["spans"]).to eq([[3, 1]])
      store({"id" => "f", "kind" => "balance", "parameters" => {"exposure" => 0.1}}, noise)
      expect(spans["spans"]).to eq([])
      store(noise.merge("parameters" => {"luma" => 0.5}), exposure)
      expect(spans["spans"]).to eq([])
    end

    it "is where pictures begin while a hand moves what follows it, once a settled one has left it" do
      tried = ->(*steps) { {trial: {shot.recipe.id => Mordant::Grade::Recipe.new("steps" => steps)}} }
      hand = ->(*steps) { Server::Pictures::Desk.current.picture(wish(3, passing: true, **tried[*steps]), size: "drag").first }
      settled = ->(*steps) { Server::Pictures::Desk.current.picture(wish(3, **tried[*steps])).first.reduce(3) }
      before = hand[noise]
      left, brighter = settled[noise], settled[noise, exposure]
      off = ->(made, wanted) { (made.rgb - wanted.rgb).abs.max }
      expect(off[before, left]).to be > 2e-3
      2.times { expect(off[hand[noise], left]).to be < 1e-4 } # a half float of what is taken
      expect(off[hand[noise, exposure], brighter]).to be < 1e-3
      expect(off[hand[noise], left]).to be < 1e-4
      weaker = noise.merge("parameters" => noise["parameters"].merge("luma" => 0.2))
      expect(off[hand[weaker], left]).to be > 1e-3
      expect(spans["spans"]).to eq([])
    end

    it "is made ahead of a range by workers, and then drawn by the screen when it is played" do
      store(noise, exposure)
      call(:post, "/cuts/#{cut.id}/renders", {first: 0, count: 8, what: "noise"})
      expect([last_response.status, json["what"]]).to eq([202, "noise"])
      work_off
      expect(Server::RangeRender.last.to_h).to include(done: 8, status: "done")
      expect(spans["spans"]).to eq([[0, 8]])

      %w[play full].each do |size|
        call(:post, "/cuts/#{cut.id}/ladders", {first: 0, count: 4, size:})
        header, parts = unpacked
        call(:post, "/cuts/#{cut.id}/cleaned", {first: 0, count: 4, size:})
        starts, words = unpacked
        expect(header["ladders"].map { |one| one["start"] }).to eq(starts["frames"].map { |one| one["start"] })
        screen = LadderScreen.new
        drawn = screen.play(words["f2"], *starts["frames"][2].values_at("width", "height"), header["ladders"][2]["rungs"], header["nodes"], parts, range: starts["frames"][2]["range"])
        exact = Server::Pictures::Desk.current.picture(wish(2), size:).last.rgb
        expect((drawn - exact).abs.max).to be < 2.0 / 255
      end
      call(:post, "/cuts/#{cut.id}/renders", {first: 0, count: 8, what: "grain"})
      expect([last_response.status, json["path"]]).to eq([422, "what"])
    end

    it "leaves a screen to finished pictures where it is not there" do
      store(noise)
      call(:post, "/cuts/#{cut.id}/ladders", {first: 0, count: 2})
      expect(unpacked.first["ladders"]).to all(include("rungs" => nil))
    end

    it "is written again where its file is gone, though it is still in memory" do
      store(noise)
      whole = 2.times.map { seen(1) }.last
      Dir.glob(File.join(Server::Settings.cache, "noise", "*", "*.half")).each { |path| File.delete(path) }
      expect((seen(1) - whole).abs.max).to be < 1e-4
      expect(spans["spans"]).to eq([[1, 1]])
    end

    it "is made anew where a file of it is broken" do
      store(noise)
      whole = seen(1)
      feed, kept = Server::Pictures::Desk.current.kept_noise(wish(1)).first
      another = Server::Pictures::Cleaned.new(Server::Pictures::Desk.new)
      path = Dir.glob(File.join(Server::Settings.cache, "noise", "*", "#{another.digest(cut.project, feed, kept)}.half")).first
      File.binwrite(path, "short")
      expect(another.fetch(cut.project, feed, kept).rgb).to eq(whole)
      expect(File.size(path)).to eq(whole.size * 2)
    end
  end
end
