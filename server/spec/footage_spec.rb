# frozen_string_literal: true

require_relative "spec_helper"
require "vips"
require_relative "../../core/spec/support/numbered"

# Footage that is not as the demo is: runs with gaps and numbers of their own, floats, other
# rates, sources that decode slowly.
RSpec.describe "Footage", type: :request do
  let(:project) { Server::Project.create!(name: "Trial", width: 64, height: 36) }
  let!(:root) { Server::MediaRoot.configure(@folder, label: "cards") }
  let(:delivery) { Server::Settings.delivery }

  before do
    FileUtils.rm_rf(delivery)
    FileUtils.mkdir_p(delivery)
  end

  def take(path = "")
    call(:post, "/projects/#{project.id}/intakes", {root: root.id, path:})
    work_off
  end

  # Greys of a tenth for each number after the first.
  def run(numbers, name: "plate_v3.%04d.png", folder: "plates")
    FileUtils.mkdir_p(File.join(@folder, folder))
    numbers.each { |n| Mordant::Media::Stills.write(Frames.flat([0.1 * (n % 10)] * 3, width: 64, height: 36), File.join(@folder, folder, format(name, n))) }
  end

  def clip(status: "ready") = Server::Clip.where(status:).last

  def cut_of(*clips, encoding: "rec709-bt1886")
    clips.each { |one| one.update!(encoding:, encoding_reason: "assigned by hand") }
    call(:post, "/projects/#{project.id}/cuts", {name: "C#{Server::Cut.count}", clips: clips.map(&:id)})
    Server::Cut.find(json.fetch("id"))
  end

  def order(cut, format: "png-16", **more)
    call(:post, "/cuts/#{cut.id}/orders", {outputs: [{"format" => format, "target" => "television", "graded" => false, **more.delete(:sheet).to_h}], shots: cut.shots.pluck(:id), template: "{clip}", **more})
    work_off if last_response.status == 201
    Server::Output.last
  end

  it "keeps the numbers and the name of a run to the end, or gives those of the timecode" do
    run(1001..1005)
    take
    expect(clip).to have_attributes(frames: 5, path: "plates/plate_v3.[1001-1005].png")
    cut = cut_of(clip)
    expect(order(cut).report["passed"]).to be(true)
    expect(Dir.children(File.join(delivery, "plate_v3")).sort).to eq((1001..1005).map { |n| "plate_v3.#{n}.png" })
    output = order(cut, format: "dpx-10", sheet: {"numbers" => "timecode", "name" => "{clip}_dpx"})
    names = Dir.children(File.join(delivery, "plate_v3_dpx")).sort
    expect(names).to eq((0..4).map { |n| format("plate_v3_dpx.%07d.dpx", n) })
    header = File.binread(File.join(output.file, names[2]), 2048)
    expect([header.unpack1("@36Z100"), header.unpack1("@1432Z100")]).to eq([names[2], "plate_v3.1003.png"])
  end

  it "takes a run with a gap in, shows a slate there, and names the frame where it is delivered" do
    run([1001, 1002, 1003, 1006])
    take
    call(:get, "/projects/#{project.id}/clips")
    expect(json.first).to include("status" => "ready", "frames" => 6, "gaps" => [[1004, 1005]], "first_number" => 1001)
    cut = cut_of(clip)
    pictures = [2, 3, 5].map { |frame| Server::Pictures::Desk.current.picture(Server::Pictures::Wish.new(cut:, frame:, screen: Server::Screens.of(project, nil))).first.rgb[0, true] }
    expect(pictures.map { |values| values.max - values.min > 0.05 }).to eq([false, true, false])
    output = order(cut)
    expect([output.status, output.message]).to match(["failed", /frame 1004 is missing from the run/])
    skipped = order(cut, sheet: {"name" => "{clip}_rest"}, skip: true)
    expect(skipped).to have_attributes(status: "done")
    expect(Dir.children(skipped.file).sort).to eq([1001, 1002, 1003, 1006].map { |n| "plate_v3_rest.#{n}.png" })
    expect(skipped.report["faults"].join).to match(/2 frames: left out/)
    run([1004, 1005])
    take
    expect(clip.gaps).to eq([])
  end

  it "lets a refused entry go when what refused it is mended" do
    run([1001])
    File.binwrite(File.join(@folder, "plates/plate_v3.1002.png"), "no picture")
    take
    expect(Server::Clip.pluck(:path, :status)).to eq([["plates/plate_v3.[1001-1002].png", "refused"]])
    run(1002..1004)
    take
    expect(Server::Clip.pluck(:path, :status)).to eq([["plates/plate_v3.[1001-1004].png", "ready"]])
  end

  it "is not held up by files whose numbers lie far apart" do
    run([1, 9_999_999_999], name: "scan_%010d.png")
    take
    expect(Server::Clip.order(:path).pluck(:frames, :reason)).to match([[1, nil], [nil, /numbers are above 2147483647/]])
  end

  it "takes the rate of a run as somebody gives it, and a clip of another rate frame for frame or by time" do
    run(1..8, name: "slow.%03d.png")
    Numbered.make(@folder, "fast.mkv", rate: 48, arguments: %w[-c:v ffv1], frames: 12)
    take
    still, fast = %w[slow fast].map { |name| Server::Clip.find_by!("path LIKE ?", "%#{name}%") }
    change = ->(body) { call(:patch, "/projects/#{project.id}/clips", body).status }
    expect(change.call({clips: [still.id], rate: "12"})).to eq(200)
    expect(still.reload).to have_attributes(rate: 12r, frames: 8)
    expect(change.call({clips: [fast.id], rate: "12"})).to eq(422)
    expect(json["words"]).to match(/rate: expected a run of numbered frames/)
    expect(change.call({clips: [still.id], rate: "x"})).to eq(422)
    take
    expect(still.reload.rate).to eq(12r) # stays when the folder is taken in again
    call(:get, "/projects/#{project.id}/clips")
    expect(json.map { |one| one.values_at("other_rate", "pace", "frames", "file_frames") }).to contain_exactly([true, "frames", 8, 8], [true, "frames", fast.frames, fast.frames])

    expect(change.call({clips: [still.id], pace: "time"})).to eq(200)
    expect(still.reload).to have_attributes(frames: 16, file_frames: 8)
    cut = cut_of(still)
    expect(order(cut).report["passed"]).to be(true)
    greys = (0..15).map { |n| Vips::Image.new_from_file(File.join(delivery, "slow", format("slow.%04d.png", n + 1))).getpoint(9, 9).first.fdiv(65_535).round(2) }
    expect(greys.each_slice(2).map(&:uniq)).to match((1..8).map { [be_a(Float)] }) # each frame twice
    expect(greys.uniq).to eq(greys.uniq.sort).and have_attributes(size: 8)
    expect(change.call({clips: [still.id], pace: "frames"})).to eq(422)
    expect(json["words"]).to match(/a clip that no cut uses.*slow.*in C0/)
    call(:post, "/cuts/#{cut.id}/orders/look", {outputs: [{"format" => "png-16", "target" => "television"}], template: "x"})
    expect(json.first["warnings"]).to include(/of another rate than the project's 24, taken by time/)
  end

  it "grades floats as they are, above white and below black, and reads their primaries" do
    frame = Mordant::Frame.new(Numo::SFloat.new(3, 64 * 36).fill(4.0), width: 64, height: 36, encoding: "acescg")
    exr = Mordant::Media::EXR.new(primaries: Mordant::Colour::Primaries::AP1, rate: 24r, timecode: Mordant::Cut::Timecode.parse("02:00:00:00", 24r), attributes: {"reelName" => "P1"})
    3.times { |n| File.binwrite(File.join(@folder, "sun.#{1001 + n}.exr"), exr.encode(frame)) }
    take
    expect(clip).to have_attributes(encoding: "acescg", encoding_reason: "the file declares it", reel: "P1", start_timecode: "02:00:00:00", code_encoding: "floats:acescg")
    cut = cut_of(clip, encoding: "acescg")
    wish = Server::Pictures::Wish.new(cut:, frame: 1, screen: Server::Screens.of(project, nil))
    working, = Server::Pictures::Desk.current.picture(wish)
    light = Mordant::Colour::Transfer::Acescct.decode(Numo::DFloat.cast(working.rgb[true, 7]))
    expect(light.to_a).to all(be_within(0.01).of(4.0))
    expect(Server::Pictures::Desk.current.point(wish, 0.5, 0.5).first).to all(be_within(0.002).of(4.0))
    expect(Server::Pictures::Ladders.new(Server::Pictures::Desk.current, wish, {}).prepared.header[:rungs]).not_to be_empty # the hand is live on floats
    expect(order(cut, format: "exr-half", sheet: {"target" => "acescg"}).report["passed"]).to be(true)
    expect(Vips::Image.new_from_file(File.join(delivery, "sun", "sun.1002.exr")).getpoint(9, 9).first(3)).to all(be_within(0.004).of(4.0))
  end

  it "plays from a working copy, and shows and delivers the original" do
    Footage.steps(@folder, name: "clip.mkv")
    take
    call(:patch, "/projects/#{project.id}/clips", {clips: [clip.id], copying: "always"})
    expect(clip.copy_status).to eq("waiting")
    work_off
    expect(clip).to have_attributes(copy_status: "ready", copy_done: 12)
    copy = Server::Pictures::Copies.current.of(clip, 64, 36)
    cut = cut_of(clip)
    opened = []
    allow(Mordant::Media::Reader).to(receive(:new).and_wrap_original { |made, path, **rest| made.call(path, **rest).tap { opened << path } })
    desk = Server::Pictures::Desk.new
    desk.playing(cut, cut.loaded_shots.first, 5, 2)
    expect(opened.last).to eq(copy.path)
    desk.picture(Server::Pictures::Wish.new(cut:, frame: 5, screen: Server::Screens.of(project, nil)))
    expect(opened.last).to end_with("clip.mkv")
    desk.picture(Server::Pictures::Wish.new(cut:, frame: 9, screen: Server::Screens.of(project, nil), passing: true), size: "small")
    stamp = Mordant::Media::FrameIndex.stamp(copy.path)
    probed = []
    allow(Mordant::Media::Probe).to(receive(:new).and_wrap_original { |made, path| made.call(path).tap { probed << path } })
    [2, 7].each { |frame| Server::Pictures::Desk.new.playing(cut, cut.loaded_shots.first, frame, 4) }
    expect([opened.last, Mordant::Media::FrameIndex.stamp(copy.path), probed]).to eq([copy.path, stamp, []]) # it is known by now
    FileUtils.rm(copy.path) # swept away, or of an older version: it is made again when it would be played
    Server::Pictures::Desk.new.playing(cut, Server::Cut.find(cut.id).loaded_shots.first, 2, 2)
    expect(clip.copy_status).to eq("waiting")
    work_off
    expect([clip.copy_status, File.exist?(copy.path)]).to eq(["ready", true])
    call(:patch, "/projects/#{project.id}/clips", {clips: [clip.id], copying: "never"})
    expect(clip.copy_status).to eq("none")
    call(:patch, "/projects/#{project.id}/clips", {clips: [clip.id], copying: "sometimes"})
    expect(last_response.status).to eq(422)
  end

  it "holds working copies to their size, the ones played longest ago going first" do
    folder = File.join(@folder, "copies")
    FileUtils.mkdir_p(folder)
    %w[a b c].each_with_index do |name, age|
      path = File.join(folder, "#{name}#{Mordant::Media::WorkingCopy::EXTENSION}")
      File.binwrite(path, "x" * 1000)
      File.utime(Time.now - 100 + age, Time.now - 100 + age, path)
    end
    Server::Pictures::Copies.new(folder:, limit: 2100).sweep
    expect(Dir.children(folder).map { |name| name[0] }.sort).to eq(%w[b c])
  end

  it "takes clips and projects away, never their files, and not while something uses them" do
    Footage.steps(@folder, name: "clip.mkv")
    take
    cut = cut_of(clip)
    call(:delete, "/projects/#{project.id}/clips", {clips: [clip.id]})
    expect([last_response.status, json["words"]]).to match([422, /clip.mkv in C0/])
    call(:delete, "/projects/#{project.id}", {name: "else"})
    expect(last_response.status).to eq(422)
    order(cut)
    call(:delete, "/projects/#{project.id}", {name: "Trial"})
    expect([last_response.status, Server::Project.count, Server::Shot.count, Server::Clip.count]).to eq([200, 0, 0, 0])
    expect(File).to exist(File.join(@folder, "clip.mkv"))
    expect(Dir.glob(File.join(delivery, "**/*.png"))).not_to be_empty
  end

  it "takes names as bytes, whatever they mean, and signs in them as ordinary characters" do
    odd = File.join(@folder.b, "day%2d [1-2] caf\xE9".b)
    Dir.mkdir(odd)
    Footage.steps(@folder, name: "plain.mkv")
    ["caf\xE9.mkv".b, "50%d take [1-2].mkv"].each { |name| FileUtils.cp(File.join(@folder, "plain.mkv"), File.join(odd, name)) }
    run(1..3)
    Dir.children(File.join(@folder, "plates")).each { |name| FileUtils.mv(File.join(@folder, "plates", name), File.join(odd, "sc\xFCne %03d[x]. ".b + name[/\d{4}/] + ".png")) }
    take
    expect(Server::Clip.order(:path).pluck(:status, :reason)).to eq([["ready", nil]] * 4)
    call(:get, "/projects/#{project.id}/clips")
    expect(json.map { |one| one["name"] }).to contain_exactly("plain.mkv", "caf\\xE9.mkv", "50%d take [1-2].mkv", "sc\\xFCne %03d[x]. [0001-0003].png")
    call(:get, "/media/#{root.id}?path=")
    folder = json["entries"].find { |one| one["folder"] && one["name"].start_with?("day") }
    expect(folder["name"]).to eq("day%2d [1-2] caf\\xE9")
    call(:get, "/media/#{root.id}?path=#{Rack::Utils.escape(folder["path"])}")
    expect(json["entries"].size).to eq(5)
    cut = cut_of(*Server::Clip.ready)
    expect(order(cut, sheet: {"name" => "{clip}_{shot}"}).status).to eq("done")
    expect(Server::Output.pluck(:status).uniq).to eq(["done"])
  end

  it "goes on where a killed worker left an intake, and passes over what kills it again and again" do
    3.times { |n| Footage.steps(@folder, name: "#{n}.mkv") }
    intake = Server::Intake.create!(project:, media_root: root, path: "")
    killer = lambda do |path|
      raise "killed" if path == "1.mkv"
    end
    allow_any_instance_of(Server::Intake::Taking).to receive(:call).and_wrap_original { |made, path| killer.call(path) || made.call(path) } # rubocop:disable RSpec/AnyInstance
    4.times do |round|
      Server::IntakeJob.new({}).run(intake.id)
    rescue RuntimeError
      expect([intake.reload.at, intake.tries]).to eq(["1.mkv", round + 1])
    end
    expect(intake.reload).to have_attributes(status: "done", done: 3, refused: 1)
    expect(Server::Clip.order(:path).pluck(:path, :status, :reason)).to match([["0.mkv", "ready", nil], ["1.mkv", "refused", /stopped a worker 3 times/], ["2.mkv", "ready", nil]])
  end

  it "sets a job aside that has been begun three times" do
    cut = Studio.cut(@folder)
    render = Server::RangeRender.order(cut, first: 0, count: 2, screen: {})
    row = ActiveRecord::Base.connection.select_one("SELECT id, args FROM que_jobs WHERE job_class = 'Server::RangeJob' LIMIT 1")
    job = -> { Server::RangeJob.new({id: row["id"], args: JSON.parse(row["args"])}) }
    allow(Server::RangeRender).to receive(:fetch).and_raise("killed")
    3.times { expect { job.call.run(*JSON.parse(row["args"])) }.to raise_error("killed") }
    RSpec::Mocks.space.proxy_for(Server::RangeRender).reset
    job.call.run(*JSON.parse(row["args"]))
    expect(render.reload).to have_attributes(status: "failed", message: /stopped a worker 3 times/)
  end

  it "does not set a part aside that gets further each time, however often a worker is killed" do
    cut = Studio.cut(@folder)
    stub_const("Server::PartJob::REPORT_EVERY", 0)
    order = Server::Order.place(cut:, sheets: [{"format" => "dpx-10", "target" => "television"}], shots: nil, template: "calm")
    Server::OpenJob.run(order.id, nil)
    row = ActiveRecord::Base.connection.select_one("SELECT id, args FROM que_jobs WHERE job_class = 'Server::PartJob' LIMIT 1")
    part = Server::Part.find(JSON.parse(row["args"]).first)
    written = 0
    allow_any_instance_of(Mordant::Deliver::SequenceWriter).to receive(:write).and_wrap_original do |original, *arguments|
      ((written += 1) % 3 == 0) ? raise("killed") : original.call(*arguments)
    end
    killed = 0
    begin
      Server::PartJob.new({id: row["id"], args: [part.id]}).run(part.id)
    rescue RuntimeError
      retry if (killed += 1) < 10
    end
    expect([killed > Server::CountedJob::MOST, part.reload.status, part.done]).to eq([true, "done", part.frames])
  end

  it "shows clips small as they are assigned" do
    Footage.steps(@folder, name: "clip.mkv")
    take
    call(:get, "/projects/#{project.id}/clips/#{clip.id}/picture")
    expect([last_response.status, last_response.content_type]).to eq([200, "image/png"])
    expect(Vips::Image.new_from_buffer(last_response.body, "").size).to eq([160, 90])
    call(:get, "/projects/#{project.id}/clips/0/picture")
    expect(last_response.status).to eq(404)
  end

  it "shows a slate, which is not kept, in place of small pictures while its disk is away, and says what to do where the picture is asked for" do
    Footage.steps(@folder, name: "clip.mkv")
    take
    cut = cut_of(clip)
    small = ["/shots/#{cut.shots.first.id}/small.png?revision=0", "/shots/#{cut.shots.first.id}/edge.png?revision=0&offset=1", "/projects/#{project.id}/clips/#{clip.id}/picture"]
    shown = -> { small.map { |path| call(:get, path).then { [last_response.status, last_response.content_type, last_response.headers["Cache-Control"].include?("no-store"), last_response.headers.key?("x-mordant-slate")] } } }
    expect(shown.call).to eq([[200, "image/png", false, false]] * 3)

    FileUtils.mv(File.join(@folder, "clip.mkv"), File.join(@folder, "away"))
    expect(shown.call).to eq([[200, "image/png", true, true]] * 3)
    image = Vips::Image.new_from_buffer(last_response.body, "")
    expect([image.size, image.deviate.positive?]).to eq([[16, 9], true])
    call(:post, "/cuts/#{cut.id}/picture", {frame: 0, size: "full"})
    expect([last_response.status, json["error"]]).to eq([422, "clip.mkv: it is not in the folder cards, or may not be read; put it back, or link its shots to other footage"])

    FileUtils.mv(File.join(@folder, "away"), File.join(@folder, "clip.mkv"))
    expect(shown.call).to eq([[200, "image/png", false, false]] * 3)
  end

  it "opens what was taken in before frames were indexed, with the same frames" do
    cut = Studio.cut(@folder)
    Server::ClipIndex.delete_all
    codes = Server::Pictures::Desk.new.playing(cut, cut.loaded_shots.first, 4, 2)
    expect(codes.rgb[0, 9]).to be_within(40).of(Footage.code(4))
    expect(Server::ClipIndex.count).to eq(1)
  end
end

RSpec.describe "Timecode", type: :request do
  let(:cut) { Studio.cut(@folder) }

  it "begins where somebody says, and leads to the frame that was typed, of the cut and of the source" do
    call(:get, "/cuts/#{cut.id}")
    expect(json).to include("start" => "01:00:00:00", "start_frames" => 86_400, "drop" => false)
    call(:patch, "/cuts/#{cut.id}", {start: "10:00:00:00"})
    expect(json).to include("start" => "10:00:00:00", "start_frames" => 864_000)
    {"10:00:00:09" => 9, "10000009" => 9, "10.0.0.3" => 3}.each do |typed, frame|
      call(:get, "/cuts/#{cut.id}/frame?record=#{typed}")
      expect(json).to eq("frame" => frame), typed
    end
    shot = cut.loaded_shots.last
    shot.clip.update!(start_timecode: "14:00:00:00")
    call(:get, "/cuts/#{cut.id}/frame?shot=#{shot.id}&source=14:00:00:04")
    expect(json).to eq("frame" => shot.record_in + 2)
    [["record", "11:00:00:00", /10:00:00:00 to 10:00:00:13/], ["source", "14:00:01:00", /14:00:00:02 to 14:00:00:07, which shot two shows/], ["record", "late", /found late/]].each do |field, typed, words|
      call(:get, "/cuts/#{cut.id}/frame?shot=#{shot.id}&#{field}=#{typed}")
      expect([last_response.status, json["path"], json["words"]]).to match([422, field, words])
    end
    call(:patch, "/cuts/#{cut.id}", {start: "25:00:00:00"})
    expect(last_response.status).to eq(422)
  end

  it "is the source's own, whatever the project's rate, drop frame included" do
    clip = cut.loaded_shots.first.clip
    clip.update!(start_timecode: "01:00:59;28", rate_numerator: 30_000, rate_denominator: 1001)
    expect((0..3).map { |frame| clip.timecode(frame).to_s }).to eq(%w[01:00:59;28 01:00:59;29 01:01:00;02 01:01:00;03])
    expect(clip.timecode(0).at(24r).to_s).to eq("01:00:59:22")
    clip.update!(start_timecode: "01:00:00:30", rate_numerator: 50, rate_denominator: 1)
    expect([clip.timecode(20).to_s, clip.timecode(20).at(25r).to_s]).to eq(%w[01:00:01:00 01:00:01:00])
  end
end

RSpec.describe "What is ordered", type: :request do
  let(:cut) { Studio.cut(@folder) }

  it "is looked at output by output; one that cannot be blanks no other, and is named as screens name it" do
    outputs = [{"format" => "h264", "target" => "television"}, {"format" => "nonsense"}, {"format" => "png-16", "target" => "television", "width" => 4}, {"format" => "exr-half", "target" => "aces2065-1"}]
    call(:post, "/cuts/#{cut.id}/orders/look", {outputs:, template: "{cut}_{format}"})
    expect(json.map { |one| one["refusal"] }).to match([nil, /nonsense/, "width: expected 16 to 8192 pixels for PNG, 16 bit, found 4", nil])
    expect(json[0]["statement"]).to include("BT.709")
    call(:post, "/cuts/#{cut.id}/orders", {outputs: outputs.values_at(0, 2), template: "{cut}_{format}"})
    expect(json).to include("path" => "outputs[1].width", "words" => "output 2, width: expected 16 to 8192 pixels for PNG, 16 bit, found 4")
  end

  it "is told beforehand which token a name needs" do
    outputs = [{"format" => "png-16", "target" => "television"}, {"format" => "tiff-16", "target" => "television"}]
    call(:post, "/cuts/#{cut.id}/orders/look", {outputs:, template: "{cut}"})
    expect(json.map { |one| one["refusal"] }).to all(match(/another output has the name Cut_1 too; add \{format\}/))
    call(:post, "/cuts/#{cut.id}/orders/look", {outputs: outputs.first(1), template: "{cut}", shots: cut.shots.pluck(:id)})
    expect(json.first["refusal"]).to match(/all shots would be named Cut_1; add \{shot\}/)
    call(:post, "/cuts/#{cut.id}/orders/look", {outputs:, template: "{cut}_{format}_{shot}", shots: cut.shots.pluck(:id)})
    expect(json.map { |one| one["refusal"] }).to eq([nil, nil])
  end
end
