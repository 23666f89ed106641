# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe Server::Pictures::Hands do
  let(:cut) { Studio.cut(@folder).tap { |cut| cut.project.update!(width: 960, height: 540) } }
  let(:desk) { Server::Pictures::Desk.new }
  let(:other) { Server::Pictures::Desk.new }
  let(:here) { described_class.new(desk, folder: @folder, name: "here.sock") }
  let(:body) { {"frame" => 2, "trial" => [{"recipe" => cut.loaded_shots.first.recipe.id, "document" => document}]} }
  let(:document) { Studio.balance(exposure: 0.7, contrast: 1.2) }
  let(:wish) { Server::Pictures::Asked.wish(Server::Cut.find(cut.id), body) }

  def open = described_class.new(other, folder: @folder, name: "other.sock").open

  def codes(frames) = frames.map { |frame| [frame.encoding, frame.width, frame.height, frame.rgb] }

  it "make one picture together, which is what one of them makes, bit for bit" do
    open
    windows = []
    allow(other).to receive(:part).and_wrap_original { |make, *arguments| windows << arguments.last && make.call(*arguments) }
    expect(codes(here.picture(wish, body))).to eq(codes(desk.picture(wish)))
    expect(windows.map(&:to_h)).to eq([{left: 0, top: 303, width: 960, height: 237}])
  end

  it "do so with areas and mattes, whose bands overlap" do
    document["steps"] << {"id" => "s", "kind" => "sharpen", "parameters" => {"size" => 0.01, "luma" => 2}, "matte" => {"contributors" => [{"id" => "e", "kind" => "ellipse"}], "refinements" => [{"id" => "b", "kind" => "blur"}]}}
    open
    expect(other).to receive(:part).and_call_original
    expect(codes(here.picture(wish, body))).to eq(codes(desk.picture(wish)))
  end

  it "leave one alone that is at work, that sees something else, or that has gone" do
    whole = codes(desk.picture(wish))
    open
    expect(other).not_to receive(:part)
    other.gate.pass(nil, 0) { expect(codes(here.picture(wish, body))).to eq(whole) }
    expect(codes(here.picture(wish, body.merge("frame" => 1)))).to eq(whole)
    UNIXServer.new(File.join(@folder, "gone.sock")).close
    expect(codes(here.picture(wish, body.merge("frame" => 1)))).to eq(whole)
    expect(Dir.children(@folder)).not_to include("gone.sock")
  end

  it "make what another one does not, and tell its fault in the log" do
    open
    allow(other).to receive(:part).and_raise(ArgumentError, "odd")
    expect { expect(codes(here.picture(wish, body))).to eq(codes(desk.picture(wish))) }.to output(/a band for another process: ArgumentError: odd/).to_stderr
    allow(other).to receive(:part).and_raise(Errno::ENOSPC)
    expect { expect(codes(here.picture(wish, body))).to eq(codes(desk.picture(wish))) }.not_to output.to_stderr
  end

  it "ask nobody for a small picture" do
    cut.project.update!(width: 240, height: 136)
    open
    expect(other).not_to receive(:part)
    expect(here.picture(wish, body).first.width).to eq(240)
  end
end
