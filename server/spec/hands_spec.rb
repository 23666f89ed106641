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

  # As the picture is made by both, or nil.
  def together(asked = body) = here.bands(wish, asked, frames)&.then { |bands| codes(frames.join(bands)) }

  after { other.gate.pass(nil, 0) { nil } } # it has looked

  let(:frames) { Server::Pictures::Bands::Frames }
  let(:whole) { codes(desk.picture(wish)) }

  it "make one picture together, which is what one of them makes, bit for bit" do
    open
    windows = []
    allow(other).to receive(:part).and_wrap_original { |make, *arguments| windows << arguments.last && make.call(*arguments) }
    expect(together).to eq(whole)
    expect(windows.map(&:to_h)).to eq([{left: 0, top: 287, width: 960, height: 253}])
  end

  it "do so with areas and mattes, whose bands overlap" do
    document["steps"] << {"id" => "s", "kind" => "sharpen", "parameters" => {"size" => 0.01, "luma" => 2}, "matte" => {"contributors" => [{"id" => "e", "kind" => "ellipse"}], "refinements" => [{"id" => "b", "kind" => "blur"}]}}
    open
    expect(other).to receive(:part).and_call_original
    expect(together).to eq(whole)
  end

  it "ask as many as have more to make than what lies around" do
    rows = []
    made = Array.new(4) do |number|
      desk = Server::Pictures::Desk.new
      allow(desk).to receive(:part).and_wrap_original { |make, *arguments| rows << arguments.last.height && make.call(*arguments) }
      described_class.new(desk, folder: @folder, name: "#{number}.sock").open && desk
    end
    {0.01 => 4, 0.05 => 1, 0.1 => 0}.each do |size, others|
      document["steps"].replace([{"id" => "s", "kind" => "soften", "parameters" => {"size" => size, "luma" => 1, "colour" => 1}}])
      rows.clear
      asked = Server::Pictures::Asked.wish(Server::Cut.find(cut.id), body)
      bands = here.bands(asked, body, frames)
      made.each { |desk| desk.gate.pass(nil, 0) { nil } }
      expect(rows.size).to eq(others)
      expect(codes(frames.join(bands))).to eq(codes(desk.picture(asked))) if others.positive?
    end
  end

  it "answer as one alone, with all that instruments read, and with what is marked in a picture" do
    open
    expect(other).to receive(:part).exactly(3).times.and_call_original
    all = {"scopes" => {"traces" => true, "vectorscope" => 2, "histogram" => true, "solid" => "lab"}, "guides" => {"black" => 0.1, "white" => 0.9}}
    [all, {"instruments" => false}, all.merge("marks" => true, "region" => [0.1, 0.3, 0.5, 0.5], "skin" => [0.4, 0.4, 0.1, 0.1])].each_with_index do |asked, number|
      together, alone = [here, nil].map { |hands| Server::Pictures::Settled.new(wish, body.merge(asked), "full", hands:).answer }
      pixels = [together, alone].map { |_, parts| Vips::Image.new_from_buffer(parts[:picture], "", fail_on: :warning).then { |image| [image.width, image.height, image.write_to_memory] } }
      expect(pixels.first).to eq(pixels.last) # its file is written in as many bands as made it
      expect([together.first, together.last.except(:picture)]).to eq([alone.first, alone.last.except(:picture)])
      expect(together.last.keys).to eq((number == 1) ? [:picture] : %i[picture luma red green blue vector histogram points colours])
    end
  end

  it "leave one alone that is at work, that sees something else, or that has gone" do
    whole
    open
    expect(other).not_to receive(:part)
    other.gate.pass(nil, 0) { expect(together).to be_nil }
    expect(together(body.merge("frame" => 1))).to eq(whole)
    UNIXServer.new(File.join(@folder, "gone.sock")).close
    expect(together(body.merge("frame" => 1))).to eq(whole)
    expect(Dir.children(@folder)).not_to include("gone.sock")
  end

  it "leave another one to other work until frames are decoded" do
    open
    free = []
    allow(desk.store).to receive(:fetch).and_wrap_original do |fetch, *arguments, **how|
      sleep 0.3 # until it has looked at the cut
      free << other.gate.try { true }
      fetch.call(*arguments, **how)
    end
    expect(other).to receive(:part).and_call_original
    expect(together).to eq(whole)
    expect(free.first).to be(true)
  end

  it "make what another one does not, and tell its fault in the log" do
    open
    allow(other).to receive(:part).and_raise(ArgumentError, "odd")
    expect { expect(together).to eq(whole) }.to output(/a band for another process: ArgumentError: odd/).to_stderr
    allow(other).to receive(:part).and_raise(Errno::ENOSPC)
    expect { expect(together).to eq(whole) }.not_to output.to_stderr
  end

  it "ask nobody for a small picture, and need nobody for one whose frames run into each other" do
    open
    expect(other).not_to receive(:part)
    second = Server::Pictures::Asked.wish(Server::Cut.find(cut.id).tap { |one| one.loaded_shots.last.update!(dissolve: 2) }, body.merge("frame" => cut.loaded_shots.last.record_in + 1))
    expect(here.bands(second, body, frames)).to be_nil
    cut.project.update!(width: 240, height: 136)
    expect(together).to be_nil
  end
end
