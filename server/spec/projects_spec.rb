# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "Projects", type: :request do
  it "tells an interface everything the core declares" do
    call(:get, "/catalogue")
    balance = json["steps"].find { |step| step["id"] == "balance" }
    expect(balance["parameters"].map { |parameter| parameter["name"] }).to include("exposure", "lift", "saturation")
    expect(balance["handles"].size).to eq(12)
    expect(json["encodings"].map { |encoding| encoding["id"] }).to include("log3g10-wgrgb").and not_include("linear")
    expect(json["formats"].map { |format| format["id"] }).to include("exr-half", "dpx-10", "vc3-mxf", "ffv1", "hdr10", "av1")
    expect(json["renderings"].map { |rendering| rendering["id"] }).to include("sdr-video-1.0")
    expect(json["canvases"].map { |canvas| canvas["id"] }).to eq(%w[2.4 2.2 srgb p3])
  end

  it "lists projects with their cuts in a fixed number of queries" do
    Studio.cut(@folder)
    call(:get, "/projects") # fetches the token too
    one = questions { call(:get, "/projects") }
    cut = Server::Cut.first
    5.times { |n| cut.add([{clip: Server::Clip.first, position: n + 2, source_in: 0, record_in: 14 + n, length: 1}]) }
    3.times { |n| Server::Project.create!(name: "Other #{n}", width: 64, height: 36) }
    expect(questions { call(:get, "/projects") }).to eq(one)
    expect(json.first["cuts"].first["shots"].size).to eq(7)
  end

  it "loads a cut whole in a fixed number of queries, a table each, however many shots, washes and families it has" do
    cut = Studio.cut(@folder)
    call(:get, "/projects") # fetches the token too
    queries = -> { questions { call(:get, "/cuts/#{cut.id}") } }
    queries.call
    expect(json).to include("length" => 14, "name" => "Cut 1")
    expect(json["shots"].map { |shot| shot.values_at("name", "record_in", "dissolve") }).to eq([["one", 0, 0], ["two", 8, 2]])
    grow = lambda do |n|
      cut.add([{clip: Server::Clip.first, position: n + 2, source_in: 0, record_in: 14 + n, length: 1}])
      call(:post, "/cuts/#{cut.id}/washes", {name: "W#{n}", words: "x"})
      call(:post, "/cuts/#{cut.id}/families", {name: "F#{n}", shots: [Server::Shot.last.id], words: "x"})
    end
    grow.call(0)
    one = queries.call
    (1..4).each(&grow)
    expect(queries.call).to eq(one)
    expect(one).to be <= 14
    expect(json.values_at("shots", "washes", "families").map(&:size)).to eq([7, 5, 5])
  end

  it "makes a project, and takes raster and rate from the first cut" do
    call(:post, "/projects", {name: " New one "})
    expect([last_response.status, json["name"]]).to eq([201, "New one"])
    project = Server::Project.find(json["id"])
    Footage.steps(@folder)
    clip = Server::Intake::Taking.new(project, Server::MediaRoot.configure(@folder)).call("steps.mkv")
    call(:post, "/projects/#{project.id}/cuts", {name: "A", clips: [clip.id]})
    expect(project.reload).to have_attributes(width: 64, height: 36, rate: 24)
    ["New one", "", "x" * 81, nil].each do |name|
      call(:post, "/projects", {name:})
      expect([last_response.status, json["path"]]).to eq([422, "name"]), name.inspect
    end
  end

  it "answers 404 for what is not there" do
    ["/cuts/5", "/cuts/x", "/recipes/1", "/projects/9/clips", "/outputs/1/file", "/shots/7/small.png"].each do |path|
      call(:get, path)
      expect([last_response.status, json["error"]]).to match([404, /there is no/]), path
    end
  end
end

RSpec.describe Server::Pictures::Nearby do
  it "has the frame decoded at which the next shot is alone, once the hand rests, and leaves what cannot be" do
    cut = Studio.cut(@folder)
    store = Server::Pictures::FrameStore.new(folder: File.join(@folder, "cache"))
    nearby = described_class.new(store)
    two = cut.loaded_shots.last
    expect(nearby.missing(cut, 3).map { |shot, number| [shot.id, number] }).to eq([[two.id, two.source_in + two.dissolve]])
    nearby.after(Server::Pictures::Wish.new(cut:, frame: 3)).join
    expect(nearby.missing(cut, 3)).to eq([])
    expect(store.there?(two.clip, two.source_in + two.dissolve, width: 64, height: 36)).to be(true)
    File.binwrite(cut.loaded_shots.first.clip.file, "none")
    nearby.after(Server::Pictures::Wish.new(cut:, frame: 12)).join
    expect(nearby.missing(cut, 12).size).to eq(1)
  end
end

RSpec.describe Server::Pictures::FrameStore do
  let(:cut) { Studio.cut(@folder) }
  let(:clip) { cut.loaded_shots.first.clip }
  let(:cache) { File.join(@folder, "cache") }

  let(:stores) { [] }

  # One of a process of its own, as it were; what it decodes has come when an example ends.
  def store = described_class.new(folder: cache).tap { |one| stores << one }

  after { stores.each(&:finish) }

  def files = Dir.glob(File.join(cache, "*/*.rgb48"))

  it "decodes a stretch at once, and finds it again on disk" do
    store.tap { |one| one.fetch(clip, 0, width: 64, height: 36) }.finish
    expect(files.size).to eq(described_class::AHEAD)
    allow(Mordant::Media::Reader).to receive(:new).and_raise("nothing should be decoded")
    expect(store.fetch(clip, 5, width: 64, height: 36).rgb[0, 0]).to be_within(40).of(Footage.code(5))
  end

  it "decodes a stretch once for all processes that ask for it at the same time" do
    begun = Queue.new
    allow(Mordant::Media::Slated).to receive(:new).and_wrap_original do |make, *arguments, **how|
      make.call(*arguments, **how).tap { |reader| allow(reader).to receive(:each).and_wrap_original { |each, **stretch, &block| begun << 1 && each.call(**stretch, &block) } }
    end
    fetching = ->(number) { Thread.new { store.fetch(clip, number, width: 64, height: 36).rgb[0, 0] } }
    first = fetching.call(0)
    begun.pop
    expect([first, fetching.call(3), fetching.call(5)].map(&:value)).to match([0, 3, 5].map { |number| be_within(40).of(Footage.code(number)) })
    expect(begun).to be_empty
  end

  it "tells the first frame before the others are there, and has one decoded that is wanted soon" do
    store = self.store
    store.prepare(clip, 0, width: 64, height: 36, pause: 60)
    expect(store.fetch(clip, 0, width: 64, height: 36).rgb[0, 0]).to be_within(40).of(Footage.code(0))
    expect(files.map { |file| File.basename(file) }).to eq(["0.rgb48"])
    expect(store.fetch(clip, 3, width: 64, height: 36, pause: 60).rgb[0, 0]).to be_within(40).of(Footage.code(3)) # which hurries it
    store.finish
    expect(files.size).to eq(8)
  end

  it "lets go of frames that were to come after a pause, for a hand that goes elsewhere" do
    store = self.store
    [0, 9, 4].each { |number| expect(store.fetch(clip, number, width: 64, height: 36, ahead: 3, pause: 60).rgb[0, 0]).to be_within(40).of(Footage.code(number)) }
    expect(store.fetch(clip, 5, width: 64, height: 36, ahead: 3, pause: 60).rgb[0, 0]).to be_within(40).of(Footage.code(5))
    store.finish
    expect(files.map { |file| Integer(File.basename(file, ".rgb48")) }.sort).to eq([0, 4, 5, 6, 9])
  end

  it "tells what is wrong with the first frame, and leaves what is wrong with a later one to whoever wants that" do
    store = self.store
    allow(Mordant::Media::Slated).to receive(:new).and_wrap_original do |make, *arguments, **how|
      make.call(*arguments, **how).tap do |reader|
        allow(reader).to receive(:each).and_wrap_original do |each, first:, count:, **raster, &block|
          raise Mordant::MediaError.new("one.mkv", "frame 4 cannot be decoded") if first == 4

          each.call(first:, count: [count, 4 - first].min, **raster, &block)
          raise Mordant::MediaError.new("one.mkv", "frame 4 cannot be decoded")
        end
      end
    end
    expect(store.fetch(clip, 0, width: 64, height: 36).rgb[0, 0]).to be_within(40).of(Footage.code(0))
    store.finish
    expect(files.size).to eq(4)
    expect { store.fetch(clip, 4, width: 64, height: 36) }.to raise_error(Mordant::MediaError, /frame 4 cannot be decoded/)
  end

  it "does not find frames of a file that has changed" do
    fetch = -> { store.tap { |one| one.fetch(clip, 0, width: 64, height: 36) }.finish }
    fetch.call
    Footage.steps(@folder, name: "one.mkv", frames: 11)
    File.utime(Time.now, Time.now + 60, File.join(@folder, "one.mkv"))
    fetch.call
    expect(files.map { |file| File.dirname(file) }.uniq.size).to eq(2)
  end

  it "holds its limit, oldest first" do
    shelf = Server::Pictures::Shelf.new(cache, ".rgb48", limit: 300)
    5.times do |n|
      shelf.write("a/#{n}", "x" * 100)
      File.utime(Time.now, Time.now - 100 + n, shelf.path("a/#{n}"))
    end
    shelf.sweep
    expect((0...5).select { |n| shelf.include?("a/#{n}") }).to eq([2, 3, 4])
    expect([shelf.read("a/4")&.bytesize, shelf.read("a/0")]).to eq([100, nil])
  end

  it "goes on without a cache when the disk is full" do
    allow(File).to receive(:binwrite).and_raise(Errno::ENOSPC)
    store = self.store
    expect { expect(store.fetch(clip, 2, width: 64, height: 36).rgb[0, 0]).to be_within(40).of(Footage.code(2)) and store.finish }.to output(/No space left.*files are not kept/).to_stderr
  end

  it "keeps reduced frames as well" do
    store = self.store
    small = store.fetch(clip, 1, width: 64, height: 36, reduction: 4)
    expect([small.width, small.height]).to eq([16, 9])
    expect(store.fetch(clip, 1, width: 64, height: 36, reduction: 4)).to equal(small)
  end
end
