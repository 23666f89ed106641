# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Media::Complaint, :folder do
  it "says what is wrong and what can be done, where that is known" do
    path = File.join(@folder, "A001 [2].mov")
    said = "[mov,mp4,m4a,3gp,3g2,mj2 @ 0x55ff4f6ae240] moov atom not found\nfile:#{path}: Invalid data found when processing input\n"
    expect(described_class.of(said, path)).to eq("it breaks off before its index, or is no film; copy it again from where it came (ffmpeg says: moov atom not found; Invalid data found when processing input)")
    said = "[wav @ 0x55cb8a639240] Format not on whitelist 'mov,matroska'\nfile:#{path}: Invalid argument\n"
    expect(described_class.of(said, path)).to start_with("no container of pictures that is read here; MOV").and end_with("Format not on whitelist; Invalid argument)")
  end

  it "gives all else in the program's own words, the last of them, without what is no use to people" do
    said = "first\n[h264 @ 0x5581] error while decoding MB 3 4, bytestream -5\n[h264 @ 0x5582] error while decoding MB 3 4, bytestream -5\nError while decoding stream #0:0: Invalid data found when processing input\n"
    expect(described_class.of(said, "x.mov")).to eq("error while decoding MB 3 4, bytestream -5; Error while decoding stream #0:0: Invalid data found when processing input")
    expect(described_class.of(" \n", "x.mov")).to be_nil
  end

  it "is what is told of real files that cannot be read" do
    told = lambda do |name, bytes|
      path = File.join(@folder, name).tap { |file| File.binwrite(file, bytes) }
      Mordant::Media::Probe.call(path)
    rescue Mordant::MediaError => e
      e.reason
    end
    expect(told["sound.mov", ["RIFF", 36, "WAVEfmt ", 16, 1, 1, 8000, 8000, 1, 8, "data", 0].pack("a4Va8VvvVVvva4V")]).to start_with("no container of pictures")
    expect(told["noise.mxf", "\0\1".b * 500]).to start_with("nothing in it can be read as pictures")
    whole = Footage.steps(@folder)
    expect(told["short.mov", File.binread(whole, File.size(whole) / 3)]).to match(/breaks off|copy it again/)
  end
end
