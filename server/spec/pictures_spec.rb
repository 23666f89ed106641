# frozen_string_literal: true

require_relative "spec_helper"
require "vips"

RSpec.describe "Pictures", type: :request do
  let(:cut) { Studio.cut(@folder) }
  let(:shot) { cut.loaded_shots.first }

  def ask(**body)
    call(:post, "/cuts/#{cut.id}/picture", {frame: 3, **body})
    return unless last_response.status == 200 && last_response.content_type == Server::Pictures::Answer::TYPE

    data = last_response.body.b
    length = data.unpack1("L<")
    header = JSON.parse(data[4, length])
    at = 4 + length
    parts = header["parts"].to_h { |part| [part["name"], data[at, part["length"]].tap { at += part["length"] }] }
    [header, parts]
  end

  def pixel(parts) = Vips::Image.new_from_buffer(parts["picture"], "").getpoint(5, 5)

  it "are told apart by the digest of all that a grade depends on, however often somebody asks" do
    recipe = Frames.recipe(exposure: 0.5)
    parts = [Mordant::ENGINE, cut.project.working_space, cut.project.compress_gamut, recipe.stamp, "acescct", Mordant::Colour::Encoding.own.stamp("acescct")]
    expect(Array.new(2) { Server::Pictures::Depends.grade(cut.project, recipe, "acescct") }).to all(eq(Server::Pictures::Depends.digest(*parts)))
    expect(Server::Pictures::Depends.grade(cut.project, Frames.recipe(exposure: 0.6), "acescct")).not_to eq(Server::Pictures::Depends.digest(*parts))
  end

  # What the core makes of a grey code by itself.
  def wanted(code, **parameters)
    plan = Mordant::Grade::Plan.new(recipe: Frames.recipe(**parameters), source: "acescct")
    frame = Mordant::Frame.new(Numo::SFloat.new(3, 1).fill(code / 65_535.0), width: 1, height: 1, encoding: "acescct")
    Mordant::Media::Integers.interleave(Mordant::Grade::Output.for(cut.project.view).run(plan.apply(frame)), 8)[0, 0]
  end

  it "shows a part of the master's raster as the master has it, pixel by pixel, with areas and mattes" do
    matte = {"contributors" => [{"id" => "e", "kind" => "ellipse"}]}
    document = {"steps" => [{"id" => "s", "kind" => "sharpen", "parameters" => {"size" => 0.02, "luma" => 2}}, {"id" => "b", "kind" => "balance", "parameters" => {"exposure" => 1}, "matte" => matte}]}
    part = lambda do |window, raster: {width: 1920, height: 1080}, frame: 3|
      call(:post, "/cuts/#{cut.id}/window", {frame:, trial: [{recipe: shot.recipe.id, document:}], raster:, window:})
      (last_response.status == 200) ? Vips::Image.new_from_buffer(last_response.body, "") : [last_response.status, json["path"]]
    end
    cut.project.update!(width: 1920, height: 1080)
    image = part[{left: 700, top: 300, width: 640, height: 360}]
    codes = shot.clip.reader.frame(3, width: 1920, height: 1080)
    master = cut.project.output.run(cut.project.plan(Mordant::Grade::Recipe.new(document), "acescct").run(codes))
    wanted = Mordant::Media::Integers.interleave(master, 8).reshape(1080, 1920, 3)[300...660, 700...1340, true]
    expect([image.width, image.height, image.write_to_memory == wanted.dup.to_binary]).to eq([640, 360, true])
    expect(part[{left: 0, top: 0, width: 960, height: 540}, raster: {width: 960, height: 540}].width).to eq(960)
    expect(part[{left: 10, top: 10, width: 100, height: 50}, frame: 8].width).to eq(100) # in the dissolve
    {{left: -1, top: 0, width: 9, height: 9} => "window", {left: 1900, top: 0, width: 100, height: 9} => "window", {left: 0.5, top: 0, width: 9, height: 9} => "window", nil => "window"}
      .each { |window, path| expect(part[window]).to eq([422, path]), window.inspect }
    expect(part[{left: 0, top: 0, width: 9, height: 9}, raster: {width: 3840, height: 2160}]).to eq([422, "raster"])
  end

  it "looks on a small raster as the master does, reduced, where a step changes detail that it does not hold" do
    cut.project.update!(width: 1920, height: 1080)
    document = {"steps" => [{"id" => "s", "kind" => "sharpen", "parameters" => {"size" => 0.002, "luma" => 3}}]}
    trial = [{recipe: shot.recipe.id, document:}]
    expect([ask(test: "bars", trial:)[0]["finer"], ask(test: "bars")[0]["finer"]]).to eq([true, false])
    part = lambda do |window|
      call(:post, "/cuts/#{cut.id}/window", {frame: 3, test: "bars", trial:, raster: {width: 480, height: 270}, window:})
      Vips::Image.new_from_buffer(last_response.body, "")
    end
    codes = Mordant::Media::TestPicture.fetch("bars").codes(1440, 810) # 750 rows hold 1.5 pixels of it
    working = cut.project.plan(Mordant::Grade::Recipe.new(document), Mordant::Media::TestPicture.fetch("bars").encoding).run(codes)
    wanted = Mordant::Media::Integers.interleave(cut.project.output.run(working).reduce(3), 8)
    image = part[{left: 0, top: 0, width: 480, height: 270}]
    expect((Numo::Int32.cast(Numo::UInt8.from_binary(image.write_to_memory)) - Numo::Int32.cast(wanted.flatten)).abs.max).to be <= 1
    expect((part[{left: 96, top: 40, width: 200, height: 100}] - image.crop(96, 40, 200, 100)).abs.max).to be <= 1
    small = cut.project.plan(Mordant::Grade::Recipe.new(document), Mordant::Media::TestPicture.fetch("bars").encoding).run(codes.reduce(3))
    expect((Numo::Int32.cast(Mordant::Media::Integers.interleave(cut.project.output.run(small), 8)) - Numo::Int32.cast(wanted)).abs.max).to be > 8
  end

  it "marks in a part of it what is marked in the whole" do
    cut.project.update!(width: 192, height: 108)
    matte = {"contributors" => [{"id" => "e", "kind" => "ellipse"}, {"id" => "l", "kind" => "luminance", "mode" => "intersect"}]}
    trial = [{recipe: shot.recipe.id, document: {"steps" => [{"id" => "s", "kind" => "soften", "parameters" => {"size" => 0.05, "luma" => 1}}, {"id" => "b", "kind" => "balance", "parameters" => {"exposure" => 2}, "matte" => matte}]}}]
    bands = {"name" => "x", "quantity" => Mordant::Scopes::Quantity.all.first.id, "scale" => "relative", "bands" => [{"from" => 0.2, "to" => 0.6, "colour" => "#ff0000"}]}
    plain = ask(test: "ramps", trial:)[1]["picture"]
    {marks: true, acts: {step: "b"}, light: {instrument: "waveform", channel: "luma", from: [0.3, 0.1], to: [0.7, 0.9]}, bands:, difference: {source: true}}.each do |name, mark|
      whole = ask(:test => "ramps", :trial => trial, name => mark)[1]["picture"]
      expect(whole).not_to eq(plain), name.inspect
      call(:post, "/cuts/#{cut.id}/window", {:frame => 3, :test => "ramps", :trial => trial, :raster => {width: 192, height: 108}, :window => {left: 64, top: 32, width: 96, height: 48}, name => mark})
      expect(last_response.status).to eq(200), last_response.body
      part = Vips::Image.new_from_buffer(last_response.body, "")
      expect((part - Vips::Image.new_from_buffer(whole, "").crop(64, 32, 96, 48)).abs.max).to be <= 1, name.inspect
    end
  end

  it "has other addresses once a file of the library that it is made with is written again" do
    lut = File.join(Mordant::Library.luts, "warm.cube")
    FileUtils.mkdir_p(File.dirname(lut))
    write = ->(gain) { File.write(lut, Mordant::Lut::Cube.write(Mordant::Grade::Bake.new(plan: Mordant::Grade::Plan.new(recipe: Frames.recipe(gain: [gain, 1, 1, 1]), source: "acescct"), output: Mordant::Grade::Output.for(Mordant::Grade::View.new(encoding: "acescct")), size: 5).table)) }
    address = -> { call(:get, "/cuts/#{cut.id}").then { json["project"]["stamp"] } }
    write[0.9]
    without = address.call
    shot.recipe.accept(revision: 0, document: {"steps" => [{"id" => "l", "kind" => "lut", "parameters" => {"lut" => "warm.cube"}}]}, words: "x")
    before, picture = address.call, ask.last["picture"]
    expect(address.call).to eq(before)
    write[0.5]
    File.utime(Time.now, Time.now + 5, lut)
    after = address.call
    expect([without, before, after].uniq.size).to eq(3)
    expect(ask.last["picture"]).not_to eq(picture)
    call(:get, "/projects")
    expect(json.first["stamp"]).to eq(after)
  ensure
    FileUtils.rm_f(lut)
  end

  it "answers the picture the core computes, with its instruments" do
    header, parts = ask
    expect(header).to include("frame" => 3, "width" => 64, "height" => 36, "columns" => 64, "levels" => 256, "size" => "full")
    expect(pixel(parts)).to all(be_within(1).of(wanted(Footage.code(3))))
    expect(parts.keys).to eq(%w[picture luma red green blue])
    expect(parts["luma"].bytesize).to eq(64 * 256)
    expect(header["tone"]["light"].max).to eq(1.0)
  end

  it "shows a recipe under the hand before it is stored, the stored one after, and the source on demand" do
    trial = [{recipe: shot.recipe.id, document: Studio.balance(exposure: 1.0)}]
    header, parts = ask(trial:, size: "drag")
    expect(header["curves"]["a"].size).to eq(Server::Pictures::Desk::CURVE_POINTS)
    expect(pixel(parts)).to all(be_within(1).of(wanted(Footage.code(3), exposure: 1.0)))
    shot.recipe.accept(revision: 0, document: Studio.balance(exposure: -1.0), words: "x")
    expect(pixel(ask[1])).to all(be_within(1).of(wanted(Footage.code(3), exposure: -1.0)))
    expect(pixel(ask(source: true)[1])).to all(be_within(1).of(wanted(Footage.code(3))))
  end

  it "mixes a dissolve" do
    _, parts = ask(frame: 8)
    mixed = Footage.code(8) * 2 / 3.0 + Footage.code(2) / 3.0
    expect(pixel(parts)).to all(be_within(1).of(wanted(mixed)))
  end

  it "refuses frames outside the cut, odd sizes and bad recipes" do
    [{frame: 14}, {frame: -1}, {frame: "x"}, {size: "huge"}, {trial: [{recipe: shot.recipe.id, document: {steps: [{}]}}]}, {trial: [{document: {}}]}].each do |body|
      ask(**body)
      expect(last_response.status).to eq(422), body.inspect
    end
    call(:post, "/cuts/999/picture", {frame: 0})
    expect(last_response.status).to eq(404)
  end

  it "names the field of every odd kind of value" do
    odd = [1, -1.5, true, [], [nil], ["a"]]
    (odd - [[]] + [{"recipe" => 1}]).each do |value|
      ask(trial: value)
      expect([last_response.status, json["path"]]).to eq([422, "trial"]), value.inspect
    end
    (odd.drop(1) + [{}, "1", nil]).each do |value|
      ask(screen: "s", sequence: value)
      expect([last_response.status, json["path"]]).to eq([422, "sequence"]), value.inspect
    end
  end

  it "tells which file is missing or broken" do
    cut
    File.delete(File.join(@folder, "one.mkv"))
    ask
    expect([last_response.status, json["error"]]).to match([422, /one\.mkv/])
  end

  it "does without its cache when it is deleted or spoilt" do
    first = pixel(ask[1])
    Dir.glob(File.join(Server::Settings.cache, "frames/*/*")).each { |file| File.truncate(file, 5) }
    Server::Pictures::Desk.instance_variable_set(:@current, nil)
    expect(pixel(ask[1])).to eq(first)
    FileUtils.rm_rf(File.join(Server::Settings.cache, "frames"))
    Server::Pictures::Desk.instance_variable_set(:@current, nil)
    expect(pixel(ask[1])).to eq(first)
  end

  it "drops a request that a newer one of the same screen has overtaken" do
    gate = Server::Pictures::Gate.new
    entered, leave = Queue.new, Queue.new
    first = Thread.new do
      gate.pass("s", 1) do
        entered << 1
        leave.pop
      end
    end
    entered.pop
    late = [2, 3].map do |sequence|
      Thread.new { gate.pass("s", sequence) { sequence } }.tap do |thread|
        thread.report_on_exception = false
        sleep 0.01 until thread.stop?
      end
    end
    leave << 1
    first.join
    expect { late[0].value }.to raise_error(Server::Pictures::Gate::Overtaken)
    expect(late[1].value).to eq(3)
  end

  it "bakes a shot into a look-up table, and says how far it is from exact" do
    shot.recipe.accept(revision: 0, document: Studio.balance(exposure: 0.5), words: "x")
    call(:get, "/shots/#{shot.id}/look.cube?size=17")
    path = File.join(@folder, "look.cube")
    File.write(path, last_response.body)
    read = Mordant::Lut::Cube.read(path)
    expect(last_response.headers["content-disposition"]).to include("Trial_one_acescct_17.cube")
    expect(read.lattice.size).to eq(17)
    expect(read.title).to match(/acescct to BT.709/)
    call(:get, "/shots/#{shot.id}/bake?size=17")
    expect(json["all"]).to include("mean" => be > 0, "worst" => be > 0)
    expect(json["seen"]["worst"]).to be < json["all"]["worst"]
    call(:get, "/shots/#{shot.id}/look.clf?size=17&view=off&steps=a")
    list = Mordant::Lut::Clf.parse(last_response.body)
    expect([list.output, list.nodes.size]).to eq(["ACEScct", 1])
    call(:get, "/shots/#{shot.id}/look.cube?steps=z")
    expect([last_response.status, json["path"]]).to eq([422, "steps"])
    ["1", "x", "500"].each do |size|
      call(:get, "/shots/#{shot.id}/look.cube?size=#{size}")
      expect([last_response.status, json["path"]]).to eq([422, "size"]), size
    end
    shot.clip.update!(encoding: nil, encoding_reason: nil)
    call(:get, "/shots/#{shot.id}/look.cube")
    expect([last_response.status, json["path"]]).to eq([422, "encoding"])
  end

  it "leaves out of a look-up table what it cannot hold, by name" do
    shot.recipe.accept(revision: 0, document: {"steps" => [{"id" => "s", "kind" => "lens_shading", "name" => "Old zoom", "parameters" => {"amount" => [1, 0, 0, 0]}}, *Studio.balance(exposure: 0.5)["steps"]]}, words: "x")
    call(:get, "/shots/#{shot.id}/bake?size=17")
    expect(json["left_out"]).to eq(["Old zoom"])
    expect(ask.last["picture"]).not_to be_empty
  end

  it "solves a neutral patch, and refuses one that cannot be trusted" do
    trial = [{recipe: shot.recipe.id, document: Studio.balance("b", exposure: 0.5)}]
    ask_neutral = ->(**more) { call(:post, "/shots/#{shot.id}/neutral", {frame: 3, step: "b", trial:, region: [0.2, 0.2, 0.4, 0.4], **more}) }
    ask_neutral.call
    expect(json).to match("temperature" => be_within(0.2).of(0.0), "tint" => be_within(0.2).of(0.0))
    ask_neutral.call(region: [0.5, 0.5, 0.01, 0.01])
    expect([last_response.status, json["path"]]).to eq([422, "patch"])
    ask_neutral.call(step: "z")
    expect([last_response.status, json["path"]]).to eq([422, "step"])
    ask_neutral.call(region: "x")
    expect([last_response.status, json["path"]]).to eq([422, "region"])
  end

  it "finds a first Balance, and where a patch stands on curves" do
    steps = [*Studio.balance("b")["steps"], {"id" => "c", "kind" => "curves"}]
    shot.recipe.accept(revision: 0, document: {"steps" => steps}, words: "x")
    call(:post, "/shots/#{shot.id}/auto", {frame: 3, step: "b"})
    expect(json.keys).to eq(%w[exposure contrast temperature tint])
    call(:post, "/shots/#{shot.id}/reading", {frame: 3, step: "c", region: [0.2, 0.2, 0.4, 0.4]})
    expect(json).to include("grey" => true, "tone" => be_within(2e-3).of(cut.project.space.tone(Footage.code(3) / 65_535.0)))
    [[:auto, "c"], [:reading, "b"], [:auto, nil]].each do |what, step|
      call(:post, "/shots/#{shot.id}/#{what}", {frame: 3, step:, region: [0, 0, 1, 1]})
      expect([last_response.status, json["path"]]).to eq([422, "step"])
    end
    call(:post, "/shots/#{cut.loaded_shots[1].id}/auto", {frame: 3, step: "b"})
    expect([last_response.status, json["path"]]).to eq([422, "frame"])
  end

  it "tells what the open step sees, how channels lie, and how skin stands" do
    trial = [{recipe: shot.recipe.id, document: Studio.balance("b", exposure: 1.0)}]
    header, = ask(trial:, tap: "b", skin: [0.1, 0.1, 0.2, 0.2])
    expect(header["input"]["step"]).to eq("b")
    expect(header["input"]["luma"].index(1.0)).to eq((cut.project.space.tone(Footage.code(3) / 65_535.0) * 96).floor)
    expect(header["extents"]["green"]).to all(be_within(0.01).of(wanted(Footage.code(3), exposure: 1.0) / 255.0))
    expect(header["skin"]["direction"]).to eq("grey")
    expect(ask(trial:, tap: "gone").first).not_to include("input")
    ask(skin: "x")
    expect([last_response.status, json["path"]]).to eq([422, "region"])
  end

  it "shows what a step acts on" do
    trial = [{recipe: shot.recipe.id, document: Studio.balance("b", exposure: 1.0)}]
    plain = pixel(ask(trial:)[1])
    expect(pixel(ask(trial:, acts: {step: "b"})[1])).to eq(plain)
    none = [{recipe: shot.recipe.id, document: Studio.balance("b")}]
    expect(pixel(ask(trial: none, acts: {step: "b"})[1]).max).to be < pixel(ask(trial: none)[1]).max * 0.7
    [[{step: "q"}, "step"], [{step: "b", region: "x"}, "region"], [[], "acts"]].each do |acts, path|
      ask(trial:, acts:)
      expect([last_response.status, json["path"]]).to eq([422, path])
    end
  end

  it "takes a test picture in place of a shot, through its recipe" do
    plain = ask(test: "bars")
    brighter = ask(test: "bars", trial: [{recipe: shot.recipe.id, document: Studio.balance(exposure: 1.0)}])
    expect(plain[0]["extents"]["luma"][2]).to be < brighter[0]["extents"]["luma"][2]
    expect(ask(test: "ramps", frame: 8)[1]).to include("picture") # in a dissolve too
    ask(test: "moon")
    expect(last_response.status).to eq(422)
  end

  describe "made ahead" do
    def spans(**on) = call(:post, "/cuts/#{cut.id}/kept", {on:}).then { json["spans"] }

    it "are found again as long as nothing they depend on has changed, nothing more and nothing less" do
      call(:post, "/cuts/#{cut.id}/renders", {first: 0, count: 14})
      expect([last_response.status, json["status"]]).to eq([202, "waiting"])
      work_off
      expect(Server::RangeRender.last.to_h).to include(done: 14, status: "done")
      expect(spans).to eq([[0, 14]])
      shot.recipe.accept(revision: 0, document: Studio.balance(exposure: 1.0), words: "x") # its own and the dissolve's
      expect(spans).to eq([[10, 4]])
      expect(spans(canvas: "2.2")).to be_empty
      call(:post, "/projects/#{cut.project_id}/undo")
      expect(spans).to eq([[0, 14]])
      call(:post, "/cuts/#{cut.id}/washes", {name: "Warm", from: cut.loaded_shots[1].id, words: "x"})
      expect(spans).to eq([[0, 14]]) # a wash without steps changes no picture
      Server::Wash.last.recipe.accept(revision: 0, document: Studio.balance(exposure: 0.5), words: "x")
      expect(spans).to eq([[0, 8]])
      FileUtils.touch(shot.clip.file, mtime: Time.now - 100)
      expect(spans).to be_empty
    end

    def finished(**body)
      call(:post, "/cuts/#{cut.id}/finished", {frame: 3, **body})
      data = last_response.body.b
      expect(JSON.parse(data[4, data.unpack1("L<")])["frame"]).to eq(3)
      data[(4 + data.unpack1("L<"))..]
    end

    it "are the pictures that are shown, and made when they are missing: smaller ones where those will do, which are not kept" do
      small, whole = %w[play full].map { |size| ask(size:, instruments: false)[1]["picture"] }
      expect([finished(size: "play"), spans]).to eq([small, []])
      expect([finished, spans]).to eq([whole, [[3, 1]]])
      expect(finished(size: "play")).to eq(whole) # as it is there
      call(:post, "/cuts/#{cut.id}/finished", {frame: 3, size: "huge"})
      expect([last_response.status, json["path"]]).to eq([422, "size"])
    end

    it "are given up when somebody says so, and refused outside the cut" do
      call(:post, "/cuts/#{cut.id}/renders", {first: 0, count: 14})
      call(:post, "/renders/#{json["id"]}/cancel")
      work_off
      expect([Server::RangeRender.last.status, spans]).to eq(["cancelled", []])
      call(:post, "/cuts/#{cut.id}/renders", {first: 10, count: 14})
      expect([last_response.status, json["path"]]).to eq([422, "first"])
    end
  end

  it "tells one pixel in numbers" do
    call(:post, "/cuts/#{cut.id}/point", {frame: 3, x: 0.5, y: 0.5})
    expect(json["source"]).to all(be_within(1e-3).of(Footage.code(3) / 65_535.0))
    expect(json["display"].map { |code| code * 255 }).to all(be_within(1).of(wanted(Footage.code(3))))
    call(:post, "/cuts/#{cut.id}/point", {frame: 8, x: 0.5, y: 0.5})
    expect([json["source"], json["display"].size]).to eq([nil, 3])
    call(:post, "/cuts/#{cut.id}/point", {frame: 3, x: 2, y: 0})
    expect([last_response.status, json["path"]]).to eq([422, "x"])
  end

  it "measures where it is told to, the whole picture or a part, and lights a part of an instrument" do
    shot.recipe.accept(revision: 0, document: Studio.balance(exposure: 1.0), words: "x")
    call(:post, "/cuts/#{cut.id}/washes", {name: "Warm", words: "x"})
    Server::Wash.last.recipe.accept(revision: 0, document: Studio.balance(exposure: 1.0), words: "x")
    levels = %w[source before final].map { |measure| ask(measure:)[0]["extents"]["green"][1] * 255 }
    expect(levels).to match([0.0, 1.0, 2.0].map { |exposure| be_within(1).of(wanted(Footage.code(3), exposure:)) })
    expect(ask(region: [0.0, 0.0, 0.5, 0.5])[0]["pixels"]).to eq(64 * 36 / 4)
    header, parts = ask(scopes: {vectorscope: 2, histogram: true, solid: "lab"})
    expect([parts.keys.sort, header["solid"]["points"]]).to eq([%w[colours histogram picture points vector], 1])
    none = ask(light: {instrument: "histogram", channel: "luma", from: 0.0, to: 0.001})[1]
    expect(pixel(none).max).to be < pixel(ask[1]).max
    [[{measure: "moon"}, "measure"], [{scopes: {ear: 1}}, "scopes"], [{light: {instrument: "x"}}, "light.instrument"], [{scopes: {vectorscope: 3}}, "zoom"]].each do |body, path|
      ask(**body)
      expect([last_response.status, json["path"]]).to eq([422, path]), body.inspect
    end
  end

  it "reads a reference together with the first" do
    shot.recipe.accept(revision: 0, document: Studio.balance(exposure: 1.0), words: "x")
    together = ask(scopes: {traces: true, histogram: true}, beside: {source: true})[1]
    alone = ask(scopes: {traces: true, histogram: true}, source: true)[1]
    expect(%w[luma red histogram].map { |name| together["beside_#{name}"] == alone[name] }).to all(be(true))
    expect(together["luma"]).not_to eq(together["beside_luma"])
    other = [{recipe: shot.recipe.id, document: Studio.balance(exposure: -1.0)}]
    expect(ask(beside: {trial: other})[1]["beside_luma"]).to eq(ask(trial: other)[1]["luma"])
    expect(ask(beside: {trial: other}, measure: "second")[1].slice("luma", "beside_luma")).to eq("luma" => ask(trial: other)[1]["luma"])
    expect(ask(measure: "second")[1]["luma"]).to eq(ask[1]["luma"])
    [[{beside: {moon: 1}}, "beside"], [{beside: {frame: "x"}}, "beside.frame"], [{difference: {}, gain: 0}, "gain"]].each do |body, path|
      ask(**body)
      expect([last_response.status, json["path"]]).to eq([422, path])
    end
  end

  it "shows the difference from a reference" do
    expect(pixel(ask(difference: {})[1])).to all(eq(0))
    shot.recipe.accept(revision: 0, document: Studio.balance(exposure: 1.0), words: "x")
    far = (wanted(Footage.code(3), exposure: 1.0) - wanted(Footage.code(3))).abs
    expect(pixel(ask(difference: {source: true}, gain: 2)[1])).to all(be_within(3).of(far * 2))
  end

  it "paints bands and marks of clipping, and keeps a person's sets" do
    call(:get, "/bands")
    set = json.find { |one| one["name"] == "Ten equal zones" }.except("own")
    expect(pixel(ask(bands: set)[1]).uniq.size).to be > 1
    expect(pixel(ask(marks: true)[1])).to eq(pixel(ask[1]))
    expect(ask(marks: true).first).not_to have_key("beyond")
    hdr = {"id" => "hdr", "name" => "HDR", "encoding" => "rec2100-pq", "rendering" => "hdr-video-1000nit-15nit-rec2020lim-1.1"}
    cut.project.update!(targets: [*cut.project.targets, hdr])
    expect(ask(marks: true, on: {target: "hdr"}).first["beyond"]).to eq(0.0) # greys
    call(:put, "/bands", set.merge("name" => "Mine"))
    expect(json.last).to include("name" => "Mine", "own" => true)
    call(:delete, "/bands?name=Mine")
    expect(json.none? { |one| one["own"] }).to be(true)
    ask(bands: set.merge("bands" => []))
    expect([last_response.status, json["path"]]).to eq([422, "bands.bands"])
  end

  it "draws a shot small for the ribbon" do
    call(:get, "/shots/#{shot.id}/small.png?revision=0")
    expect([last_response.status, last_response.content_type]).to eq([200, "image/png"])
    expect(Vips::Image.new_from_buffer(last_response.body, "").width).to eq(16)
  end
end

RSpec.describe "A grade that moves" do
  include Api

  around { |example| Dir.mktmpdir { |folder| (@folder = File.realpath(folder)) && example.run } }

  let(:cut) { Studio.cut(@folder) }
  let(:shot) { cut.loaded_shots.last }
  let(:document) { {"steps" => [{"id" => "a", "kind" => "balance", "parameters" => {}, "keys" => [{"frame" => 2, "parameters" => {}}, {"frame" => 4, "parameters" => {"exposure" => 2.0}}]}]} }

  # Shown and delivered, as is the same grade standing still.
  it "is the standing one of each frame, in pictures and files" do
    frames = lambda do |doc|
      shot.recipe.update!(document: doc)
      fresh = Server::Cut.find(cut.id)
      delivered = []
      fresh.programme.each(first: 10, count: 4) { |frame, _| delivered << frame.rgb }
      seen = [10, 11, 12, 13].map { |frame| Server::Pictures::Desk.current.picture(Server::Pictures::Wish.new(cut: fresh, frame:, screen: Server::Screens.of(fresh.project, nil)))[0].rgb }
      [delivered, seen]
    end
    still = ->(exposure) { frames[Studio.balance(exposure:)].map { |list| list.map(&:to_a) } }
    moving = frames[document].map { |list| list.map(&:to_a) }
    {0 => 0.0, 1 => 1.0, 2 => 2.0, 3 => 2.0}.each { |at, exposure| expect(moving.map { |list| list[at] }).to eq(still[exposure].map { |list| list[at] }) }
    call(:post, "/cuts/#{cut.id}/picture", {frame: 11, trial: [{recipe: shot.recipe.id, document:}]})
    header = JSON.parse(last_response.body.byteslice(4, last_response.body.unpack1("L<")))
    expect(header["moved"]["a"]["exposure"]).to eq(1.0)
  end
end
