# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::CommandLine::Conform, :folder do
  let(:demo) { File.expand_path("../../../../demo", __dir__) }

  def run(*arguments)
    output, complaints = StringIO.new, StringIO.new
    code = Mordant::CommandLine.run(["conform", *arguments], output:, complaints:)
    [code, code.zero? ? JSON.parse(output.string) : complaints.string]
  end

  it "links the demo's list to the demo's footage, as the manifest says" do
    code, found = run("--list", File.join(demo, "salt_lantern.edl"), "--rate", "24", "--media", File.join(demo, "media"))
    shots = JSON.parse(File.read(File.join(demo, "manifest.json")))["shots"]
    expect([code, found.keys, found["rate"], found["events"].size]).to eq([0, %w[title rate events notes], "24/1", shots.size])
    expect(found["events"][0].keys).to eq(%w[number reel clip transition source_in source_out record_in record_out speed link])
    expect(found["events"].map { |one| one["link"].values_at("file", "rule", "frame") }).to eq(shots.map { |shot| [File.join(demo, "media", shot["clip"]), "reel and timecode", shot["in"]] })
  end

  it "takes runs of frames as footage, and says what it is called with wrongly" do
    Dir.mkdir(File.join(@folder, "plates"))
    5.times { |n| Vips::Image.black(8, 8, bands: 3).write_to_file(File.join(@folder, "plates/sea.#{1001 + n}.png")) }
    list = File.join(@folder, "x.edl")
    File.write(list, "001  AX  V  C  00:00:00:00 00:00:00:04 01:00:00:00 01:00:00:04\n* FROM CLIP NAME: sea.[1001-1005].png\n")
    _, found = run("--list", list, "--rate", "23.976", "--media", @folder)
    expect([found["rate"], found["events"][0]["link"]]).to match(["24000/1001", include("file" => end_with("plates/sea.[1001-1005].png"), "frame" => 0)])
    expect(run("--list", list)[1]["events"][0]["link"]).to be_nil
    [[[], 2, /needs --list/], [["--list", list, "--rate", "fast"], 2, /fast is no rate/], [["--list", "#{list}x"], 1, /not there/], [["--list", list, "--media", "#{list}x"], 1, /folder is not there/]].each do |arguments, code, words|
      expect(run(*arguments)).to match([code, words])
    end
  end
end
