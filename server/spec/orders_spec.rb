# frozen_string_literal: true

require_relative "spec_helper"
require "vips"
require "rubygems/package"

RSpec.describe "Orders", type: :request do
  let(:footage) { :steps }
  let(:cut) { Studio.cut(@folder, footage:) }
  let(:delivery) { Server::Settings.delivery }

  before do
    FileUtils.rm_rf(delivery)
    FileUtils.mkdir_p(delivery)
  end

  let(:master) { {"format" => "exr-half", "target" => "aces2065-1", "name" => "{project}/{cut}_{format}"} }
  let(:review) { {"format" => "h264", "target" => "television", "name" => "{project}/{cut}_{format}"} }

  def order(outputs: [master, review], **body)
    call(:post, "/cuts/#{cut.id}/orders", {outputs:, template: "{project}/{cut}_{format}", **body})
  end

  def path(name) = File.join(delivery, "Trial", name)

  # Codes of all frames of a video, [3, 36, 64] each.
  def seen(file, count: 14)
    [].tap { |pictures| Mordant::Media::Reader.new(file, rate: Rational(24)).each(first: 0, count:, width: 64, height: 36) { |codes| pictures << codes.rgb.reshape(3, 36, 64) } }
  end

  def states = Server::Output.order(:id).pluck(:status, :done)

  it "delivers the cut in several formats from one pass, graded, checked, and offers them for download" do
    cut.loaded_shots.first.recipe.accept(revision: 0, document: Studio.balance(exposure: 1.0), words: "x")
    order
    expect(last_response.status).to eq(201)
    allow(Mordant::Media::Reader).to receive(:new).and_call_original
    work_off
    expect(states).to eq([["done", 14]] * 2), Server::Output.pluck(:message).inspect
    frames = Dir.glob(path("Cut_1_exr-half/*.exr")).sort
    expect(frames.map { |file| File.basename(file) }).to eq((0...14).map { |n| format("Cut_1_exr-half.%07d.exr", 86_400 + n) })
    light = Mordant::Colour::Transfer::Acescct.decode(Numo::DFloat[Footage.code(3) / 65_535.0])[0] * 2
    expect(Vips::Image.new_from_file(frames[3]).getpoint(9, 9).first(3)).to all(be_within(light / 500).of(light))
    expect(Mordant::Media::Probe.call(path("Cut_1_h264.mp4"))).to have_attributes(frames: 14, width: 64, height: 36, codec: "h264", range: "legal", start: "01:00:00:00")
    call(:get, "/outputs/#{Server::Output.first.id}/file")
    names = []
    Gem::Package::TarReader.new(StringIO.new(last_response.body)).each { |entry| names << entry.full_name }
    expect(names.size).to eq(14)
    call(:get, "/outputs/#{Server::Output.last.id}/report")
    expect(last_response.body).to include("Nothing is wrong", "14 of 14")
    list = Nokogiri::XML(File.read(Dir[path("ascmhl/0001_*.mhl")].first)).remove_namespaces!
    sums = list.xpath("//hash").to_h { |hash| [hash.at("path").text, hash.at("md5").text] }
    expect(sums["Cut_1_exr-half/#{File.basename(frames[3])}"]).to eq(Digest::MD5.file(frames[3]).hexdigest)
    expect(Dir[path("{.*.frames,**/*.part}")]).to be_empty
  end

  it "delivers shots each by itself, with handles, their own timecode, reel and numbers" do
    shot = cut.loaded_shots.last
    shot.clip.update!(start_timecode: "10:00:00:00", reel: "H001")
    order(outputs: [{"format" => "dpx-10", "target" => "television", "burns" => [{"text" => "{shot} {source_timecode}"}], "mask" => 2.0, "width" => 128, "height" => 64}, review.merge("name" => "{shot}_{reel}")], shots: [shot.id], template: "{shot}", handles: 2)
    work_off
    expect(states).to eq([["done", 10]] * 2), Server::Output.pluck(:message).inspect
    first = Mordant::Cut::Timecode.parse("10:00:00:00", 24).frames
    expect(Dir.children(File.join(delivery, "two")).sort).to eq((0...10).map { |n| "two.#{(first + n).to_s.rjust(7, "0")}.dpx" })
    expect(Mordant::Media::Probe.call(File.join(delivery, "two_H001.mp4")).start).to eq("10:00:00:00")
    header = File.binread(File.join(delivery, "two", "two.#{(first + 1).to_s.rjust(7, "0")}.dpx"), 2048)
    expect([header.unpack1("@1920N"), header.unpack1("@1556Z32"), header.unpack1("@772N")]).to eq([0x10000001, "H001", 128])
  end

  it "leaves the grade out, or gives a share of the look, and looks before it is ordered" do
    wash = Server::Wash.lay(cut, {"name" => "Warm"}, words: "x")
    wash.recipe.accept(revision: 0, document: Studio.balance(exposure: 2.0), words: "y")
    outputs = [[true, 1.0], [true, 0.5], [false, 1.0]].map { |graded, look| {"format" => "exr-float", "target" => "aces2065-1", "graded" => graded, "look" => look, "name" => "a_#{graded}_#{look}"} }
    call(:post, "/cuts/#{cut.id}/orders/look", {outputs: outputs + [{"format" => "png-16", "target" => "aces2065-1"}], template: "a"})
    expect([json[2]["statement"], json[3]["warnings"].first]).to match([/ungraded/, /needs floats/])
    order(outputs:, shots: [cut.loaded_shots.first.id])
    work_off
    light = %w[true_1.0 true_0.5 false_1.0].map { |name| Vips::Image.new_from_file(Dir[File.join(delivery, "a_#{name}/*.exr")].min).getpoint(5, 5).first }
    expect([light[0] / light[2], light[1] / light[2]]).to match([be_within(0.02).of(4), be_between(1.5, 3.0)])
  end

  context "of noisy footage" do
    let(:footage) { :noisy }

    it "takes noise away in every output but those that say otherwise, whose statement says so" do
      shot = cut.loaded_shots.first
      steps = {"steps" => [{"id" => "n", "kind" => "noise", "parameters" => {"luma" => 2.0, "colour" => 2.0}}]}
      shot.recipe.accept(revision: 0, document: steps, words: "x")
      outputs = [{}, {"noise" => false}, {"graded" => false}].each_with_index.map { |more, at| {"format" => "exr-float", "target" => "aces2065-1", "name" => "n_#{at}", **more} }
      order(outputs:, shots: [shot.id])
      work_off
      pictures = Array.new(3) { |at| Vips::Image.new_from_file(Dir[File.join(delivery, "n_#{at}/*.exr")].min).write_to_memory }
      expect([pictures[0] == pictures[2], pictures[1] == pictures[2]]).to eq([false, true])
      expect(Server::Output.order(:id).map { |output| output.report["statement"].to_s[/noise left in/] }).to eq([nil, "noise left in", nil])
    end
  end

  it "refuses names that would overwrite, clash or escape, and queues nothing then" do
    FileUtils.mkdir_p(File.join(delivery, "taken"))
    shots = cut.loaded_shots.map(&:id)
    one = ->(**more) { {outputs: [master.except("name").merge(more.transform_keys(&:to_s))]} }
    {one[name: "../{cut}"] => "below the delivery folder", one[name: "/tmp/x"] => "below", one[name: "taken"] => "not taken yet", one[name: "{cut}"].merge(shots:) => "no other output has",
     one[name: "{film}"] => "tokens among", {outputs: []} => "1 to 12 outputs", one[format: "film"] => "no format", one[target: "cinema9"] => "television", {shots: []} => "at least one shot",
     {handles: 999} => "0 to 240"}.each do |body, words|
      order(**body)
      expect([last_response.status, json["error"]]).to match([422, /#{words}/]), body.inspect
    end
    expect([Server::Output.count, Server::Record.connection.select_value("SELECT count(*) FROM que_jobs")]).to eq([0, 0])
  end

  it "refuses clips nobody has assigned an encoding to" do
    cut.loaded_shots.last.clip.update!(encoding: nil, encoding_reason: nil)
    order
    expect([last_response.status, json["error"]]).to match([422, /shot two.*encoding is assigned/])
  end

  it "cancels what waits at once, and what runs at its next frame, leaving nothing of it behind" do
    order
    waiting, running = Server::Output.order(:id).to_a
    call(:post, "/outputs/#{waiting.id}/cancel")
    expect(json["status"]).to eq("cancelled")
    running.update!(cancelling: true)
    work_off
    expect(running.reload.status).to eq("cancelled")
    expect(Dir.glob(File.join(delivery, "**/*"), File::FNM_DOTMATCH).select { |file| File.file?(file) }).to be_empty
  end

  it "goes on with the others when the files of a cancelled one go away under a worker's hand" do
    order
    gone = Server::Output.order(:id).first
    allow_any_instance_of(Mordant::Deliver::SequenceWriter).to receive(:write).and_wrap_original do |original, *arguments|
      gone.reload.cancelled unless gone.reload.over?
      original.call(*arguments)
    end
    work_off
    expect(states).to match([["cancelled", anything], ["done", 14]]), Server::Output.pluck(:message).inspect
    expect(Dir.exist?(path("Cut_1_exr-half"))).to be(false)
  end

  it "is told in as many questions to the database however many outputs there are" do
    asked = -> { questions { [Server::Events.work(cut.project_id), call(:get, "/cuts/#{cut.id}/orders")] } }
    order(outputs: [master])
    asked.call
    few = asked.call
    order(outputs: Array.new(6) { |n| review.merge("name" => "more_#{n}") })
    expect(asked.call).to eq(few)
  end

  it "has the frames of a shot that stand still drawn by ffmpeg alone while others of it move" do
    cut.project.update!(working_space: "display")
    cut.loaded_shots.each { |shot| shot.clip.update!(encoding: "rec709-bt1886") }
    keys = [{"frame" => 3, "parameters" => {"gain" => [0.9, 1, 1, 1]}}, {"frame" => 5, "parameters" => {"gain" => [0.8, 1, 1, 1]}}]
    cut.loaded_shots.last.recipe.accept(revision: 0, document: Studio.balance(gain: [0.9, 1, 1, 1]), words: "x")
    cut.loaded_shots.first.recipe.accept(revision: 0, document: {"steps" => [{"id" => "a", "kind" => "balance", "keys" => keys}]}, words: "x")
    drawn = []
    allow_any_instance_of(Mordant::Deliver::VideoWriter).to receive(:draw).and_wrap_original { |draw, bulk, records, **rest, &told| (drawn << records) && draw.call(bulk, records, **rest, &told) }
    order(outputs: [review])
    work_off
    expect(states).to eq([["done", 14]]), Server::Output.pluck(:message).inspect
    expect(drawn).to eq([0...4, 5...8, 10...14]), Server::Output.first.lattices.inspect # one frame moves, two dissolve
    codes = seen(path("Cut_1_h264.mp4")).first(8).map { |picture| picture[0, 0, 0] }
    fresh = Server::Cut.find(cut.id)
    source, output = fresh.source_of(fresh.loaded_shots.first), fresh.project.output(fresh.project.view)
    wanted = []
    fresh.loaded_shots.first.clip.reader.each(first: 0, count: 8, width: 64, height: 36) { |picture| wanted << output.run(source.plan_at(wanted.size).run(picture)).rgb[0, 0] * 65_535 }
    expect(codes.zip(wanted)).to all(satisfy { |code, exact| (code - exact).abs < 2 * 65_535 / 1023.0 })
  end

  it "needs no name of its own where every output has one, and says so where one has none" do
    order(template: nil)
    expect([last_response.status, json["outputs"].map { |one| one["path"] }]).to match([201, all(include("Trial"))])
    order(outputs: [master, review.except("name")], template: nil)
    expect([last_response.status, json["path"]]).to eq([422, "name"])
    expect(Server::Order.count).to eq(1)
  end

  it "says a range alone that its files have" do
    outputs = [{"format" => "ffv1"}, {"format" => "vc3-mov", "range" => "full"}, {"format" => "vc3-mov"}, {"format" => "dpx-10"}].map { |one| one.merge("target" => "television", "width" => 256, "height" => 144) }
    call(:post, "/cuts/#{cut.id}/orders/look", {outputs:, template: "x"})
    expect(json.map { |look| look["statement"][/(full|legal) range/] }).to eq(["full range", "full range", "legal range", "full range"])
    call(:post, "/cuts/#{cut.id}/orders/look", {outputs: [{"format" => "ffv1", "target" => "television", "range" => "legal"}], template: "x"})
    expect(json.first["refusal"]).to eq("range: expected full, found legal")
  end

  it "has ffmpeg draw the shots that a lattice can stand in for, and makes the rest exactly" do
    cut.project.update!(working_space: "display")
    cut.loaded_shots.each { |shot| shot.clip.update!(encoding: "rec709-bt1886") }
    cut.loaded_shots.first.recipe.accept(revision: 0, document: Studio.balance(gain: [0.9, 1, 1, 1]), words: "x")
    cut.loaded_shots.last.recipe.accept(revision: 0, document: {"steps" => [{"id" => "b", "kind" => "lens_shading", "parameters" => {"amount" => [1, 0, 0, 0]}}]}, words: "x")
    exact = review.merge("name" => "exact", "mask" => 1.9)
    order(outputs: [review, review.merge("format" => "h264-8"), exact])
    work_off
    expect(states).to eq([["done", 14]] * 3), Server::Output.pluck(:message).inspect
    one, two = cut.loaded_shots.map { |shot| shot.id.to_s }
    nodes = -> { Server::Output.order(:id).map { |output| output.lattices.transform_values { |found| found["nodes"] } } }
    expect(nodes.call).to eq([{one => 33, two => 0}] * 2 + [{}])
    middles = Server::Output.order(:id).map do |output|
      seen(output.file).values_at(3, 12).map { |picture| Numo::DFloat.cast(picture[true, 9...27, true]) }
    end
    middles.first.zip(middles.last) { |picture, made| expect((picture - made).abs.mean).to be < 2 * 65_535 / 1023.0 }
    moving = {"id" => "a", "kind" => "lens_shading", "parameters" => {"amount" => [1, 0, 0, 0]}}
    Server::Recipe.find_by(id: cut.loaded_shots.first.recipe.id).then { |recipe| recipe.accept(revision: recipe.revision, document: {"steps" => [moving]}, words: "x") }
    output = Server::Output.first
    stretch = Server::Stretch.new(Server::Order.find(output.order_id), nil)
    Server::Lattices.new(output, stretch).draw(output.writer(stretch), 0...6, Mordant::Deliver::Findings.new)
    expect(nodes.call.first).to eq({one => 0, two => 0}) # what was found of the grade before does not count
  end

  it "makes exactly what goes by time, as its frames do not follow each other as the file's do" do
    cut.project.update!(working_space: "display")
    cut.loaded_shots.map(&:clip).uniq.each { |clip| clip.update!(encoding: "rec709-bt1886", rate_numerator: 25, rate_denominator: 1, pace: "time") }
    order(outputs: [review])
    work_off
    expect(states).to eq([["done", 14]]), Server::Output.pluck(:message).inspect
    expect(Server::Output.first.lattices).to eq({})
  end

  it "makes small parts of what is computed, which workers share, and large ones of what ffmpeg is likely to draw" do
    stub_const("Server::Part::FRAMES", 4)
    stub_const("Server::Part::QUICK", 10)
    parts = -> { Server::Order.last.parts.order(:first).pluck(:frames) }
    order(outputs: [review])
    work_off
    expect([parts.call, states]).to eq([[4, 4, 4, 2], [["done", 14]]])
    cut.project.update!(working_space: "display")
    cut.loaded_shots.each { |shot| shot.clip.update!(encoding: "rec709-bt1886") }
    order(outputs: [review.merge("name" => "again")])
    work_off
    expect([parts.call, states.last]).to eq([[10, 4], ["done", 14]])
  end

  it "waits while it is paused, goes before others when it is put first, and goes on" do
    order
    made = Server::Order.first
    call(:patch, "/orders/#{made.id}", {paused: true, priority: 5})
    expect(Server::Record.connection.select_values("SELECT priority FROM que_jobs")).to eq([6]) # behind the parts of what has begun
    work_off
    expect(states).to eq([["waiting", 0]] * 2)
    call(:patch, "/orders/#{made.id}", {paused: false})
    work_off
    expect(states).to eq([["done", 14]] * 2)
    call(:patch, "/orders/#{made.id}", {priority: 0})
    expect([last_response.status, json["path"]]).to eq([422, "priority"])
  end

  it "says which file failed, keeps finished frames of the others, and goes on with them when it is mended" do
    order
    whole = File.binread(File.join(@folder, "two.mkv"))
    File.truncate(File.join(@folder, "two.mkv"), whole.bytesize / 3)
    work_off
    expect(Server::Output.pluck(:status, :message)).to all(match(["failed", /two\.mkv/]))
    kept = Dir.glob(path("Cut_1_exr-half/*.exr")).to_h { |file| [file, File.mtime(file)] }
    expect(kept.size).to be >= 8
    File.binwrite(File.join(@folder, "two.mkv"), whole)
    Server::Output.order(:id).each { |output| call(:post, "/outputs/#{output.id}/retry") }
    work_off
    expect(states).to eq([["done", 14]] * 2), Server::Output.pluck(:message).inspect
    others, own = kept.partition { |file, _| file[/(\d+)\.exr\z/, 1].to_i < 86_408 }
    expect(others.map { |file, time| File.mtime(file) == time } + own.map { |file, time| File.mtime(file) > time }).to eq([true] * kept.size)
    call(:post, "/outputs/#{Server::Output.first.id}/retry")
    expect([last_response.status, json["path"]]).to eq([422, "output"])
  end

  it "leaves frames out that cannot be decoded, if that was asked for, and lists them" do
    order(skip: true)
    File.truncate(File.join(@folder, "two.mkv"), File.size(File.join(@folder, "two.mkv")) / 3)
    work_off
    expect(Server::Output.pluck(:status).uniq).to eq(["done"])
    report = Server::Output.first.report
    expect([report["passed"], report["faults"].first]).to match([false, /two 01:00:00:\d\d.*left out/])
    expect(Mordant::Media::Probe.call(path("Cut_1_h264.mp4")).frames).to eq(14)
  end

  it "carries the sound of sources along, and silence where one has none" do
    cut
    file = File.join(@folder, "two.mkv")
    system("ffmpeg", "-v", "error", "-i", file, "-f", "lavfi", "-i", "sine=f=440:r=48000", "-map", "0:v", "-map", "1:a", "-c:v", "copy", "-c:a", "pcm_s16le", "-shortest", "#{file}.new.mkv", exception: true)
    File.rename("#{file}.new.mkv", file)
    order(outputs: [review, {"format" => "ffv1", "target" => "television"}])
    work_off
    expect(states).to eq([["done", 14]] * 2), Server::Output.pluck(:message).inspect
    %w[Cut_1_h264.mp4 Cut_1_ffv1.mkv].each do |name|
      samples = Numo::Int16.from_binary(Mordant::Media::Command.run(["ffmpeg", "-v", "error", "-i", path(name), "-f", "s16le", "-ac", "1", "-ar", "48000", "-"], path: name))
      loud = ->(range) { Numo::DFloat.cast(samples[range]).rms }
      expect([samples.size, loud[2000...14_000], loud[18_000...26_000]]).to match([be_within(2500).of(28_000), be < 20, be > 1000]), name
    end
  end

  {"while frames are made of it" => [Mordant::Deliver::Pass, :run], "while what was written is checked" => [Mordant::Deliver::Check, :call]}.each do |time, (kind, method)|
    it "does not pass an output whose source was replaced #{time}" do
      order
      allow_any_instance_of(kind).to receive(method).and_wrap_original do |original, *arguments, **named, &progress|
        original.call(*arguments, **named, &progress).tap { FileUtils.touch(File.join(@folder, "two.mkv"), mtime: Time.now - 100) }
      end
      work_off
      outputs = Server::Output.order(:id).to_a
      expect(outputs).to all(have_attributes(status: "failed", done: 0, report: nil, message: /two\.mkv.*replaced.*thrown away/))
      expect(Dir.glob(path("{*,.*.frames}"))).to be_empty
      RSpec::Mocks.space.reset_all
      outputs.each(&:retry)
      work_off
      expect(states).to eq([["done", 14]] * 2), outputs.map { |output| output.reload.message }.inspect
    end
  end

  it "says that a source is gone, and goes on when it is back" do
    order(outputs: [master])
    File.rename(File.join(@folder, "one.mkv"), File.join(@folder, "away.mkv"))
    work_off
    expect(Server::Output.first).to have_attributes(status: "failed", message: /one\.mkv/)
    File.rename(File.join(@folder, "away.mkv"), File.join(@folder, "one.mkv"))
    call(:post, "/outputs/#{Server::Output.first.id}/retry")
    work_off
    expect(states).to eq([["done", 14]])
  end

  it "does not go on with frames of a source that was replaced while it had failed" do
    allow_any_instance_of(Mordant::Deliver::Check).to receive(:call).and_raise(Errno::ENOSPC)
    order(outputs: [master])
    work_off
    expect(Server::Output.first).to have_attributes(status: "failed", message: /disk is full/)
    before = Dir.glob(path("Cut_1_exr-half/*.exr")).to_h { |file| [file, File.binread(file)] }
    RSpec::Mocks.space.reset_all
    system("ffmpeg", "-v", "error", "-y", "-i", File.join(@folder, "one.mkv"), "-vf", "negate", "-c:v", "ffv1", File.join(@folder, "two.mkv"), exception: true)
    Server::Output.first.retry
    work_off
    after = Dir.glob(path("Cut_1_exr-half/*.exr")).to_h { |file| [file, File.binread(file)] }
    expect([states, after.size, after.keys.sort]).to eq([[["done", 14]], 14, before.keys.sort])
    expect(after[after.keys.max]).not_to eq(before[before.keys.max])
  end

  it "says that the disk is full, and goes on when there is room" do
    order(outputs: [master])
    allow(File).to receive(:binwrite).and_raise(Errno::ENOSPC)
    work_off
    expect(Server::Output.first).to have_attributes(status: "failed", message: /disk is full/)
    RSpec::Mocks.space.proxy_for(File).reset
    call(:post, "/outputs/#{Server::Output.first.id}/retry")
    work_off
    expect(Server::Output.first).to have_attributes(status: "done", message: nil)
  end

  it "says that the disk is full while frames of a video become a part, and goes on when there is room" do
    order(outputs: [review])
    part = path(".Cut_1_h264.mp4.frames/p00000000-14.nut.#{Process.pid}.part")
    FileUtils.mkdir_p(File.dirname(part))
    File.symlink("/dev/full", part)
    work_off
    expect(Server::Output.first).to have_attributes(status: "failed", message: /\Athe disk is full; make room/)
    FileUtils.rm_f(part)
    Server::Output.first.retry
    work_off
    expect(Server::Output.first).to have_attributes(status: "done", done: 14, message: nil)
  end

  it "says so while the whole of a video is encoded" do
    order(outputs: [review])
    real = ENV["PATH"]
    tool = File.join(@folder, "bin/ffmpeg") # nothing but a small disk fills up for mp4, and none can be made here
    FileUtils.mkdir_p(File.dirname(tool))
    File.write(tool, "#!/bin/sh\ncase \"$*\" in *whole.part*) echo 'av_interleaved_write_frame(): No space left on device' >&2; exit 0;; esac\nPATH='#{real}' exec ffmpeg \"$@\"\n", perm: 0o755)
    begin
      ENV["PATH"] = "#{File.dirname(tool)}:#{real}"
      work_off
    ensure
      ENV["PATH"] = real
    end
    expect(Server::Output.first).to have_attributes(status: "failed", message: /\Athe disk is full; make room/)
    Server::Output.first.retry
    work_off
    expect(Server::Output.first).to have_attributes(status: "done", done: 14, message: nil)
  end

  it "says that the delivery folder is gone, and queues nothing" do
    cut
    FileUtils.rm_rf(delivery)
    order
    expect([last_response.status, json["path"], json["error"], Server::Order.count]).to match([422, delivery, /delivery folder is not there/, 0])
  end

  it "says that the folder cannot be written to" do
    order(outputs: [master])
    File.write(File.join(delivery, "Trial"), "in the way")
    work_off
    expect(Server::Output.first).to have_attributes(status: "failed", message: /Trial/)
  end
end

RSpec.describe "What goes along with orders" do
  include Api

  around { |example| Dir.mktmpdir { |folder| (@folder = File.realpath(folder)) && example.run } }

  let(:cut) { Studio.cut(@folder) }

  before { FileUtils.rm_rf(Server::Settings.delivery) && FileUtils.mkdir_p(Server::Settings.delivery) }

  it "is a list that relinks to what was written" do
    shots = cut.loaded_shots
    order = Server::Order.place(cut:, sheets: [{"format" => "dpx-10", "target" => "television"}], shots:, template: "{shot}", handles: 1)
    call(:get, "/orders/#{order.id}/list.otio")
    clips = json["tracks"]["children"][0]["children"]
    expect(clips.map { |one| one["OTIO_SCHEMA"] }).to eq(%w[Clip.1 Transition.1 Clip.1])
    expect(clips.values_at(0, 2).map { |one| [one["media_reference"]["target_url"], one["source_range"]["start_time"]["value"], one["source_range"]["duration"]["value"], one["media_reference"]["available_range"]["duration"]["value"]] })
      .to eq([["one", 0.0, 8.0, 9.0], ["two", 2.0, 6.0, 8.0]])
    call(:get, "/orders/#{order.id}/list.edl")
    expect(last_response.body).to include("TO CLIP NAME: two\n").and include("FROM CLIP NAME: one\n").and include("01:00:00:08")
    call(:get, "/orders/#{order.id}/list.aaf")
    expect([last_response.status, json["path"]]).to eq([422, "format"])
    call(:get, "/orders/#{order.id}/list.edl?of=h264")
    expect([last_response.status, json["path"]]).to eq([422, "format"])
  end

  it "is a preview with what is drawn in, and presets of ours and one's own" do
    output = {"format" => "h264", "target" => "television", "width" => 640, "height" => 360}
    pictures = [[], [{"text" => "{timecode}", "x" => 0.5, "y" => 0.5, "size" => 0.3}]].map { |burns| call(:post, "/cuts/#{cut.id}/orders/preview", {output: output.merge(burns:), frame: 3}).body }
    images = pictures.map { |bytes| Vips::Image.new_from_buffer(bytes, "") }
    expect([images[0].width, images[0].height]).to eq([960, 540])
    expect((images[0] - images[1]).abs.max).to be > 40
    call(:get, "/presets")
    cut.project.update!(width: 256, height: 144)
    json.each { |preset| expect(Server::Order.read(cut.project, preset["outputs"], "{cut}").size).to be_positive, preset["id"] }
    call(:put, "/projects/#{cut.project_id}/presets", {name: "Ours", outputs: [output]})
    own = json.last
    expect(own).to include("label" => "Ours", "outputs" => [output.transform_keys(&:to_s)])
    call(:put, "/projects/#{cut.project_id}/presets", {name: "Bad", outputs: [{"format" => "gif"}]})
    expect(last_response.status).to eq(422)
    call(:delete, "/presets/#{own["own"]}")
    expect(json.size).to eq(Mordant::Deliver::Presets::ALL.size)
  end
end
