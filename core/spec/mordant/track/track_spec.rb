# frozen_string_literal: true

require "spec_helper"
require "open3"

RSpec.describe Mordant::Track do
  let(:demo) { File.expand_path("../../../../demo/media", __dir__) }

  def codes(path, frames)
    probe = Mordant::Media::Probe.new(path)
    reader = Mordant::Media::Reader.new(path, rate: probe.facts.rate, facts: probe.facts, index: -> { probe.index })
    found = []
    reader.each(first: frames.begin, count: frames.size, width: 960, height: 540) { |one| found << one }
    found
  end

  def lightness(codes) = codes.frame(encoding: "srgb").rgb.mean(axis: 0).reshape(540, 960)

  # Places of the picture's pixels from its middle.
  let(:across) { Numo::SFloat.new(1, 960).seq + Numo::SFloat.zeros(540, 1) + (0.5 - 480) }
  let(:down) { Numo::SFloat.new(540, 1).seq + Numo::SFloat.zeros(1, 960) + (0.5 - 270) }

  def disc(x, y, radius) = Numo::SFloat.cast((across - x)**2 + (down - y)**2 < radius**2)

  # A picture after a map in pixels, with light changed by a factor and noise added.
  def warped(plane, map, light: 1.0, noise: 0.008)
    x, y = map.inverse.call(across, down)
    values, = Mordant::Track::Pyramid.new(plane).read(0, x.reshape(x.size), y.reshape(y.size))
    values.reshape(540, 960) * light + Numo::SFloat.new(540, 960).rand_norm(0, noise)
  end

  # How far places of the disc are off in the end, at most, in pixels.
  def off(found, map, x, y, radius)
    [[0, 0], [-radius, 0], [radius, 0], [0, -radius], [0, radius]].map do |dx, dy|
      wanted, got = map.call(x + dx, y + dy), found.call((x + dx) / 540.0, (y + dy) / 540.0).map { |one| one * 540 }
      Math.hypot(wanted[0] - got[0], wanted[1] - got[1])
    end
  end

  it "stays within half a pixel over ten warps of frames of the demo, noise and changes of light in them" do
    Numo::NArray.srand(21)
    random = Random.new(21)
    kinds = {"position" => ["heron/H014/H014_1B.mov", 0, -60, 60], "similarity" => ["heron/H015/H015_2A.mov", -60, 40, 70], "corners" => ["dunlin/D207/D207_1C.mov", 50, 0, 110]}
    worst = kinds.to_h do |kind, (clip, x, y, radius)|
      plane = lightness(codes(File.join(demo, clip), 0...1).first)
      follow = Mordant::Track::Follow.new(plane + Numo::SFloat.new(540, 960).rand_norm(0, 0.008), disc(x, y, radius), kind:)
      map = Mordant::Track::Map::NONE
      errors = Array.new(10) do
        free = kind != "position"
        map = Mordant::Track::Map.similarity(random.rand(-15.0..15.0), random.rand(-10.0..10.0), turn: free ? random.rand(-0.06..0.06) : 0.0, scale: free ? random.rand(0.96..1.04) : 1.0, about: [x, y]) * map
        map = Mordant::Track::Map.new([1, 0, 0, 0, 1, 0, random.rand(-6e-5..6e-5), random.rand(-6e-5..6e-5), 1.0]) * map if kind == "corners"
        found = follow.next(warped(plane, map, light: random.rand(0.85..1.15)))
        expect(found&.confidence).to be > 0.7
        off(found.map, map, x, y, (kind == "corners") ? 0 : radius).max
      end
      [kind, errors.max]
    end
    expect(worst.values).to all(be < 0.35), worst.to_s
  end

  # Where the lantern of the drifting boat lies, in pixels from the middle: the scene's own numbers (demo/scenes/set_harbour.pov).
  def lantern(pose)
    s, turn = pose / 7.0, 2 * Math::PI * pose / 8.0
    hook = rotated([5.6, 11.4, 0], [2 * Math.sin(turn), -12, 2.4 * Math.sin(turn + 0.7)]).map { |one| one * 1.25 }.zip([-14 + 28 * s, -10.2 + 0.35 * Math.sin(turn), 32]).map(&:sum)
    place = hook.zip(rotated([0, -1.75, 0], [0, 0, 6 * Math.sin(turn)])).map { |a, b| a + 1.25 * b }
    camera, aim = [-1.5 + 3 * s, 11, -26], [0, 2.4, 40]
    ahead = unit(aim.zip(camera).map { |a, b| a - b })
    right = unit([ahead[2], 0, -ahead[0]])
    up = [0, 1, 2].map { |i| ahead[(i + 1) % 3] * right[(i + 2) % 3] - ahead[(i + 2) % 3] * right[(i + 1) % 3] }
    seen = place.zip(camera).map { |a, b| a - b }
    depth, x, y = [ahead, right, up].map { |axis| axis.zip(seen).sum { |a, b| a * b } }
    [x, -y].map { |one| one / depth / Math.tan(24 * Math::PI / 180) * 480 }
  end

  def unit(vector) = Math.sqrt(vector.sum { |one| one * one }).then { |long| vector.map { |one| one / long } }

  def rotated(place, degrees)
    [[1, 2], [2, 0], [0, 1]].zip(degrees).reduce(place) do |at, ((a, b), angle)|
      cosine, sine = Math.cos(angle * Math::PI / 180), Math.sin(angle * Math::PI / 180)
      at.dup.tap { |made| made[a], made[b] = at[a] * cosine - at[b] * sine, at[a] * sine + at[b] * cosine }
    end
  end

  it "stays within a pixel of the lamp on the demo's drifting boat, by the command line" do
    x, y = lantern(0)
    Dir.mktmpdir do |folder|
      recipe = File.join(folder, "boat.json")
      File.write(recipe, JSON.generate("steps" => [{"id" => "lamp", "kind" => "balance", "matte" => {"contributors" => [{"id" => "e", "kind" => "ellipse", "mode" => "add", "parameters" => {"centre" => [x / 540, y / 540], "radii" => [20 / 540.0, 32 / 540.0], "softness" => 0.01}}]}}]))
      poses = File.join(folder, "poses.mkv") # each of ten stands for three frames
      Mordant::Media::Command.run(["ffmpeg", "-v", "error", "-i", "file:#{File.join(demo, "knot/K034/K034_3C.mov")}", "-vf", "select=not(mod(n\\,3))*lt(n\\,30)", "-vsync", "0", "-c:v", "ffv1", "file:#{poses}"], path: poses, limit: 60)
      out = StringIO.new
      status = Mordant::CommandLine.run(["track", "--recipe", recipe, "--step", "lamp", "--from", "log3g10-wgrgb", poses], output: out, complaints: out)
      made = JSON.parse(out.string)
      frames = made["frames"]
      expect([status, made["lost"], frames.size, frames[0]]).to eq([0, nil, 10, {"frame" => 0, "x" => 0.0, "y" => 0.0, "turn" => 0.0, "scale" => 1.0, "confidence" => 1.0}])
      errors = frames.map do |one|
        wanted = lantern(one["frame"] * 0.5)
        Math.hypot(wanted[0] - x - one["x"] * 540, wanted[1] - y - one["y"] * 540)
      end
      expect(errors.max).to be < 0.85
    end
  end

  it "says where and why it is lost, and keeps what was found" do
    Numo::NArray.srand(8)
    plane = lightness(codes(File.join(demo, "heron/H014/H014_1B.mov"), 0...1).first)
    follow = Mordant::Track::Follow.new(plane, disc(0, -60, 50), kind: "position")
    expect(follow.next(warped(plane, Mordant::Track::Map.similarity(40, 0)))).not_to be_nil
    expect([follow.next(Numo::SFloat.new(540, 960).rand), follow.why]).to eq([nil, "nothing there looks like it any more"])
    away = Mordant::Track::Follow.new(plane, disc(0, -60, 50), kind: "position")
    found = (1..6).map { |n| away.next(warped(plane, Mordant::Track::Map.similarity(-90.0 * n, 0))) } # its middle is at the edge between the fifth and the sixth
    expect([found.map(&:nil?), away.why]).to match([eq([false] * 5 + [true]).or(eq([false] * 4 + [true] * 2)), "it leaves the picture"])
    expect { Mordant::Track::Follow.new(Numo::SFloat.new(540, 960).fill(0.4), disc(0, 0, 50), kind: "position") }.to raise_error(Mordant::ParameterError, /something in the picture to hold on to/)
    expect { Mordant::Track::Follow.new(plane, disc(2000, 0, 50), kind: "position") }.to raise_error(Mordant::ParameterError, /a shape that lies in the picture/)
  end

  it "carries shapes along a path from the frame they are put on it, with a turn about its own middle, and goes on from a corrected place" do
    maps = (0..4).map { |n| Mordant::Track::Map.similarity(0.1 * n, 0.0, turn: n * 0.1, about: [0.2, 0.0]) }
    path = Mordant::Track::Path.new({"kind" => "similarity", "first" => 10, "centre" => [0.2, 0.0], "maps" => maps.map { |map| map.numbers.first(8) }, "confidence" => [1.0] * 5, "lost" => {"frame" => 15, "why" => "it leaves the picture"}})
    expect([path.motion(12), path.span, path.at(99).numbers]).to match([{x: be_within(1e-6).of(0.2), y: be_within(1e-6).of(0), turn: be_within(1e-3).of(0.2 * 180 / Math::PI), scale: be_within(1e-6).of(1)}, 10..14, maps.last.numbers])
    again = Mordant::Track::Path.new({"kind" => "similarity", "first" => 13, "centre" => [0.5, 0.0], "maps" => [[1, 0, 0, 0, 1, 0, 0, 0], [1, 0, 0.05, 0, 1, 0, 0, 0], [1, 0, 0.3, 0, 1, 0, 0, 0]], "confidence" => [1.0, 0.9, 0.8], "lost" => nil})
    joined = path.joined(again, 13)
    expect([joined.span, joined.sure(15), joined.lost, joined.motion(15)[:x], joined.motion(12)[:x]]).to match([10..15, 0.8, nil, be_within(1e-6).of(0.6), be_within(1e-6).of(0.2)])
    shape = {"steps" => [{"id" => "a", "kind" => "balance", "parameters" => {"exposure" => 1.0}, "matte" => {"contributors" => [{"id" => "g", "kind" => "ellipse", "parameters" => {"centre" => [0.2, 0.0], "radii" => [0.1, 0.05]}, "path" => {"id" => 5, "from" => 11}}]}}]}
    resolver = Object.new
    resolver.define_singleton_method(:path) { |_id| path }
    recipe = Mordant::Grade::Recipe.new(shape).resolved(resolver)
    made = Mordant::Grade::Plan.new(recipe: recipe.at(14), source: "acescct").apply(Mordant::Frame.new(Numo::SFloat.new(3, 192 * 108).fill(0.4), width: 192, height: 108, encoding: "acescct")).rgb[0, true].reshape(108, 192)
    bright = made > 0.41
    expect((bright.where % 192).then { |columns| columns.to_a.sum.fdiv(columns.size) + 0.5 - 96 }).to be_within(1.0).of((0.2 + 0.3) * 108)
    expect([recipe.moving?, recipe.entries[0].moves, recipe.at(11).moving?]).to eq([true, [10..14], false])
    expect { Mordant::Track::Path.new({"kind" => "position", "first" => 0, "centre" => [0, 0], "maps" => [[1, 0, Float::NAN, 0, 1, 0, 0, 0]], "confidence" => [1.0], "lost" => nil}) }.to raise_error(Mordant::ParameterError, /maps of eight numbers/)
  end
end
