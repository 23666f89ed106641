# frozen_string_literal: true

require_relative "spec_helper"
require "vips"

RSpec.describe "Pictures under a moving hand", type: :request do
  let(:cut) { Studio.cut(@folder).tap { |one| one.project.update!(width: 192, height: 108) } }
  let(:shot) { cut.loaded_shots.first }
  let(:screen) { LadderScreen.new }
  let(:ellipse) { {"contributors" => [{"id" => "e", "kind" => "ellipse", "parameters" => {"centre" => [0.2, 0.1], "softness" => 0.3}}]} }
  let(:bright) { {"contributors" => [{"id" => "l", "kind" => "luminance", "parameters" => {"low" => 0.3, "low_softness" => 0.3}}]} }

  def balance(id, matte: nil, **parameters) = {"id" => id, "kind" => "balance", "parameters" => parameters.transform_keys(&:to_s), "matte" => matte}.compact

  def soften(id, size: 0.05) = {"id" => id, "kind" => "soften", "parameters" => {"size" => size, "luma" => 1, "colour" => 1}}

  # @return [Array(Hash, Hash), nil] header and parts; nil where none came
  def ask(path, steps, **body)
    call(:post, "/cuts/#{cut.id}/#{path}", {frame: 3, test: "ramps", trial: [{recipe: shot.recipe.id, document: {steps:}}], instruments: false, **body})
    return unless last_response.status == 200

    data = last_response.body.b
    at = 4 + data.unpack1("L<")
    header = JSON.parse(data[4...at])
    [header, header["parts"].to_h { |part| [part["name"], data[at, part["length"]].tap { at += part["length"] }] }]
  end

  def prepare(step, steps, **body) = ask("ladder", steps, ladder: screen.named(step), **body)

  def move(step, steps, **body) = ask("picture", steps, size: "live", ladder: screen.named(step), **body)

  # How far it is from the exact picture, in codes of 8 bits: in the mean.
  def off(drawn, steps, **body)
    _, parts = ask("picture", steps, **body)
    exact = Numo::UInt8.from_binary(Vips::Image.new_from_buffer(parts["picture"], "").write_to_memory).reshape(192 * 108, 3)
    (Numo::DFloat.cast(exact).transpose - drawn.clip(0, 1) * 255).abs.mean
  end

  it "are drawn from the source through one lattice where no step has a matte" do
    steps = ->(exposure) { [balance("a", exposure:), balance("b", saturation: 1.2)] }
    screen.take(*prepare("b", steps[0]))
    header, parts = move("b", steps[0.5])
    expect([header["size"], header["ladder"]["rungs"].flatten.size, parts.size]).to eq(["live", 1, 1])
    expect(off(screen.take(header, parts), steps[0.5])).to be < 0.6
  end

  it "climb rungs with mattes, and only what a move changes is sent" do
    steps = ->(exposure, strength = 0.8) { [balance("a", contrast: 1.1), balance("b", exposure:, matte: ellipse.merge("strength" => strength)), balance("c", temperature: -20, exposure: -0.4, matte: bright), balance("d", saturation: 0.8)] }
    expect(off(screen.take(*prepare("b", steps[1.0])), steps[1.0])).to be < 0.6
    header, parts = move("b", steps[1.5])
    expect([header["size"], header["ladder"].keys]).to eq(["live", %w[start nodes rungs]])
    drawn = screen.take(header, parts)
    expect(screen.arrived.size).to be < 5 # not the fixed matte
    expect(off(drawn, steps[1.5])).to be < 0.8
    small = header["ladder"]["rungs"][1][0]["weight"] # what the bright ones are has moved as well
    expect(small.values_at("width", "height")).to eq([48, 27])
    header, parts = move("b", steps[1.5, 0.5])
    drawn = screen.take(header, parts)
    expect(header["ladder"]["rungs"][0][0]["weight"]["width"]).to eq(48)
    expect(off(drawn, steps[1.5, 0.5])).to be < 0.8
  end

  it "start from the exact result of areas and times before the hand, and come reduced under one" do
    steps = ->(exposure, after = nil) { [soften("s"), balance("a", exposure:), after].compact }
    screen.take(*prepare("a", steps[0]))
    expect(screen.told["domain"].first.sum).to be > 0
    header, parts = move("a", steps[0.7])
    expect([header["size"], screen.take(header, parts).then { |drawn| off(drawn, steps[0.7]) < 0.6 }]).to eq(["live", true])
    expect([prepare("s", steps[0]), last_response.status]).to eq([nil, 204])
    expect(prepare("a", steps[0, soften("t")])).to be_nil
    header, parts = move("a", steps[0.7, soften("t")])
    expect([header["size"], parts.key?("picture")]).to eq(["drag", true])
    header, = move("a", [soften("s", size: 0.1), balance("a")]) # before the hand
    expect(header["size"]).to eq("drag")
  end

  it "begin where a step under the hand will begin, neutral as it still is" do
    screen.take(*prepare("b", [balance("a", contrast: 1.1), balance("b", matte: ellipse)]))
    header, = move("b", [balance("a", contrast: 1.1), balance("b", exposure: 0.1, matte: ellipse)])
    expect(header["size"]).to eq("live")
  end

  it "come of a source of linear light, and reduced in a working space of it" do
    shot.clip.update!(encoding: "acescg")
    steps = [balance("a", exposure: 0.5)]
    drawn = screen.take(*prepare("a", steps, test: nil))
    expect(off(drawn, steps, test: nil)).to be < 0.6
    cut.project.update!(working_space: "acescg")
    expect(prepare("a", [balance("a", matte: ellipse, exposure: 1)])).to be_nil
  end

  it "come reduced in a dissolve, and without a start that is known" do
    expect(prepare("a", [balance("a")], test: nil, frame: 8)).to be_nil
    header, parts = move("a", [balance("a")], frame: 8, test: nil)
    expect([header["size"], parts.key?("picture")]).to eq(["drag", true])
    expect(ask("picture", [balance("a")], size: "live", ladder: {}).first["size"]).to eq("drag")
  end

  it "refuse what a screen could not have been told" do
    screen.take(*prepare("a", [balance("a")]))
    {nil => "ladder", {held: "all"} => "ladder.held", screen.named("a").merge(domain: [[0, 0, 0], [0, 1, 1]]) => "ladder.domain", screen.named("a").merge(domain: [[0, 0, 0], ["1", 1, 1]]) => "ladder.domain"}.each do |ladder, path|
      ask("picture", [balance("a")], size: "live", ladder:)
      expect([last_response.status, json["path"]]).to eq([422, path]), ladder.inspect
    end
    call(:post, "/cuts/#{cut.id}/ladders", {first: 0, count: 2, held: {}})
    expect([last_response.status, json["path"]]).to eq([422, "held"])
    call(:post, "/cuts/#{cut.id}/ladders", {first: 0, count: 5000})
    expect([last_response.status, json["path"]]).to eq([422, "count"])
  end

  it "are played up ladders from their sources: one for what stands still, one for each frame of what moves" do
    play = lambda do |steps, first, count, size: "full"|
      call(:get, "/cuts/#{cut.id}/playing?first=#{first}&count=#{count}&size=#{size}")
      data = last_response.body.b
      at = 4 + data.unpack1("L<")
      sources = JSON.parse(data[4...at]).then { |header| header["parts"].zip(header["frames"]).to_h { |part, frame| [frame["frame"], [data[at, part["length"]].tap { at += part["length"] }, *frame.values_at("width", "height")]] } }
      header, parts = ask("ladders", steps, first:, count:, size:)
      header["ladders"].to_h { |one| [one["frame"], one["rungs"] && [one["rungs"], screen.play(*sources.fetch(one["frame"]), one["rungs"], header["nodes"], parts)]] }
    end
    keyed = balance("k").merge("keys" => [{"frame" => 2, "parameters" => {}}, {"frame" => 4, "parameters" => {"exposure" => 1.0}}])
    steps = [keyed, balance("b", exposure: -1, matte: ellipse), balance("c", exposure: 1, matte: bright)]
    {"full" => 1, "play" => 2}.each do |size, reduction|
      played = play[steps, 1, 9, size:]
      expect(played.select { |_, found| found.nil? }.keys).to eq([8, 9]) # in the dissolve
      lattices = played.transform_values { |found| found && found[0][0][0]["lattice"] }
      expect([lattices.values_at(1, 2).uniq.size, lattices.values_at(2, 3, 4).uniq.size, lattices.values_at(4, 5, 6).uniq.size]).to eq([1, 3, 1])
      [1, 3, 5].each do |frame|
        exact = Vips::Image.new_from_buffer(ask("picture", steps, frame:, test: nil).last["picture"], "").resize(1.0 / reduction, kernel: :linear)
        pixels = Numo::DFloat.cast(Numo::UInt8.from_binary(exact.write_to_memory)).reshape(exact.width * exact.height, 3)
        expect((pixels.transpose - played[frame][1] * 255).abs.mean).to be < 1.5
      end
    end
    expect(play[[soften("s")], 1, 2].values).to eq([nil, nil])
  end
end
