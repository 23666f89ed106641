# frozen_string_literal: true

require_relative "spec_helper"
require "rubygems/package"

RSpec.describe "A package of looks", type: :request do
  let(:cut) { Studio.cut(@folder) }

  before { FileUtils.rm_rf(Server::Errands::Pack.folder) }

  def files
    found = {}
    Gem::Package::TarReader.new(StringIO.new(last_response.body)).each { |entry| found[entry.full_name] = entry.read }
    found
  end

  def order(**wish)
    call(:post, "/cuts/#{cut.id}/packages", {size: 17, **wish})
    json["id"]
  end

  it "holds tables and CDLs of the whole cut, with what they cannot hold" do
    cut.loaded_shots.first.recipe.accept(revision: 0, document: {"steps" => [{"id" => "a", "kind" => "balance", "parameters" => {"exposure" => 1.0}}, {"id" => "b", "kind" => "lens_shading", "name" => "Edges", "parameters" => {"amount" => [1, 0, 0, 0]}}]}, words: "x")
    id = order(layers: ["own"])
    expect([last_response.status, json]).to match([202, include("status" => "waiting", "count" => 2, "done" => 0)])
    call(:get, "/errands/#{id}/file")
    expect([last_response.status, json["error"]]).to match([404, /not finished/])
    work_off
    expect(Server::Errand.find(id)).to have_attributes(status: "done", done: 2)
    call(:get, "/errands/#{id}/file")
    expect(last_response.headers["content-disposition"]).to include("Trial_Cut_1_looks.tar")
    expect(files.keys.map { |name| name.delete_prefix("Trial_Cut_1_looks/") }).to match_array(%w[luts/one.cube luts/one.clf luts/two.cube luts/two.clf Cut_1.ccc listing.txt])
    File.write(File.join(@folder, "one.cube"), files["Trial_Cut_1_looks/luts/one.cube"])
    cube = Mordant::Lut::Cube.read(File.join(@folder, "one.cube"))
    encode, decode = Mordant::Colour::Transfer::Acescct.method(:encode), Mordant::Colour::Transfer::Acescct.method(:decode)
    code = Mordant::Pointwise::Chain.new(cube.operations).exact(Numo::DFloat.new(3, 1).fill(0.4))[0, 0]
    expect(code).to be_within(0.002).of(encode.call(decode.call(Numo::DFloat[0.4]) * 2)[0])
    expect(files["Trial_Cut_1_looks/listing.txt"]).to match(/one: Balance; left out.*Edges.*\ntwo: no steps\n.*CDL exact/m)
    expect(files["Trial_Cut_1_looks/Cut_1.ccc"].scan("<ColorCorrection ").size).to eq(2)
  end

  it "refuses what it cannot be" do
    {{size: 20} => "size", {size: "17"} => "size", {formats: ["csp"]} => "format", {formats: "cube"} => "formats", {per: "reel"} => "per", {layers: ["x"]} => "layers", {target: "x"} => "target"}.each do |wish, path|
      order(**wish)
      expect([last_response.status, json["path"]]).to eq([422, path]), wish.inspect
    end
    expect(Server::Errand.count).to eq(0)
  end

  it "stops when it is cancelled or asked for anew, and keeps few" do
    first = order
    second = order
    expect(Server::Errand.find(first).status).to eq("cancelled")
    call(:post, "/errands/#{second}/cancel")
    expect(json["status"]).to eq("cancelled")
    work_off
    expect(Dir.glob(File.join(Server::Errands::Pack.folder, "*"))).to be_empty
    3.times { order && work_off }
    expect(Server::Errand.order(:id).pluck(:status)).to eq(["done"] * 3)
    expect(Dir.children(Server::Errands::Pack.folder).size).to eq(3)
    allow(File).to receive(:rename).and_raise(Errno::ENOSPC)
    order && work_off
    expect(Server::Errand.last).to have_attributes(status: "failed", message: /disk is full/)
  end
end
