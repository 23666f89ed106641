# frozen_string_literal: true

require "spec_helper"
require "timeout"

RSpec.describe Mordant::Pointwise::Together do
  around do |example|
    described_class.count = 3
    example.run
  ensure
    described_class.count = 1
  end

  it "does parts at once, and gives what they make in their order" do
    met = Array.new(2) { Thread::Queue.new }
    made = described_class.each([0, 1]) do |part|
      met[1 - part] << Thread.current # each waits for the other one
      [part, met[part].pop]
    end
    expect(made.map(&:first)).to eq([0, 1])
    expect(made.map(&:last).uniq.size).to eq(2)
    expect(described_class.each((0...40).to_a) { |part| sleep(0.001 * (part % 3)) && part * part }).to eq(Array.new(40) { |part| part * part })
  end

  it "goes on when threads are at other work, and within a part" do
    release = Thread::Queue.new
    busy = Array.new(3) { Thread.new { described_class.each([0, 1, 2]) { release.pop } } }
    expect(described_class.each([1, 2]) { |part| described_class.each([3, 4]) { |inner| part * inner } }).to eq([[3, 4], [6, 8]])
    9.times { release << 1 }
    expect(busy.map(&:value)).to eq([[1, 1, 1]] * 3)
  end

  it "divides no part while there are parts that nobody has taken" do
    described_class.count = 2
    sizes = described_class.each((0...200).to_a) { sleep(0.0005) && described_class.parts(400_000).size }
    expect([sizes.first, sizes.last]).to eq([1, 4])
    expect(described_class.parts(400_000).size).to eq(4)
  end

  it "does what another thread's part is made of while it waits for that part" do
    described_class.count = 2
    own, begun, met = Thread.current, Thread::Queue.new, Array.new(2) { Thread::Queue.new }
    inner = lambda do |part| # of two parts, each of which waits for the other
      met[1 - part] << Thread.current
      met[part].pop
    end
    both = Timeout.timeout(20) { described_class.each([0, 1]) { (Thread.current == own) ? begun.pop : (begun << 1) && described_class.each([0, 1], &inner) } }
    expect(both.grep(Array).first.uniq.size).to eq(2)
  end

  it "raises what the first part raised, once all are done" do
    done = Thread::Queue.new
    fails = -> { described_class.each([0, 1, 2, 3]) { |part| done << part && (part.odd? ? raise(Mordant::Error, "part #{part}") : part) } }
    expect(&fails).to raise_error(Mordant::Error, "part 1")
    expect(done.size).to eq(4)
    expect { described_class.each([0, 1]) { |part| (sleep(0.01) && part.zero?) ? part : raise(NoMemoryError) } }.to raise_error(NoMemoryError)
    expect(described_class.each([5, 6], &:succ)).to eq([6, 7])
  end

  it "parts work so that each is worth a thread, and not at all for one" do
    expect(described_class.parts(400_000)).to eq([0...66_666, 66_666...133_333, 133_333...200_000, 200_000...266_666, 266_666...333_333, 333_333...400_000])
    expect(described_class.parts(250, 300)).to eq([0...125, 125...250])
    expect(described_class.parts(199, 300)).to eq([0...199])
    expect(described_class.parts(40, 5000, least: 16)).to eq([0...20, 20...40])
    expect(described_class.each([1, 2], pixels: 99_999) { Thread.current }).to eq([Thread.current] * 2)
    described_class.count = 1
    expect(described_class.parts(400_000)).to eq([0...400_000])
    expect(described_class.each([1, 2]) { Thread.current }).to eq([Thread.current] * 2)
  end

  it "has threads of its own in a process that was forked" do
    described_class.each([1, 2], &:succ)
    reader, writer = IO.pipe
    Process.wait(fork { writer.write(described_class.each([1, 2, 3]) { |part| sleep(0.01) && part * 2 }.inspect) && writer.close })
    writer.close
    expect(reader.read).to eq("[2, 4, 6]")
  end

  it "changes no bit of what is compiled, whatever comes of it" do
    size = 200_003
    planes = Array.new(3) { Numo::SFloat.new(size).rand }
    sweep = Mordant::Pointwise::Sweep.new(3) { |red, green, blue| [red * green + blue, (red - green).abs] }
    codes = Mordant::Pointwise::Sweep.new(3, makes: :codes) { |*rows| rows.map { |plane| plane * 65_535 } }
    rows = [[300, 600], [40, 5000], [5000, 40], [17, 10_000]].map { |height, width| planes.first[0...(height * width)].reshape(height, width) }
    boxes, small, blocks, taps = Mordant::Area::Running.new(7, 0.3, 3), Mordant::Area::Boxes.new(0.8), Mordant::Area::Blocks.new(16), [0.5, 0.2, 0.05]
    about = ->(plane) { Mordant::Grade::Window.new(left: 3, top: 5, width: plane.shape[1], height: plane.shape[0]) }
    drawn = ->(plane) { blocks.means(plane, about[plane]).then { |means| [means, blocks.drawn(means, about[plane])] } }
    tones = Mordant::Pointwise::Counted.new(2, 300) { |one, other| [[one * 300.0, (other + 8.0) - 8.0]] } # multiples of 2^-20, whose sums are exact
    make = -> { [*sweep.call(*planes), *codes.call(*planes), *tones.call(*planes.first(2)), *rows.flat_map { |plane| [boxes.call(plane), small.call(plane), Mordant::Area::Tapped.call(plane, taps, 3), *drawn[plane]] }].map(&:to_binary) }
    parted = make.call
    described_class.count = 1
    expect(parted).to eq(make.call)
  end

  it "changes no bit of what steps of an area and their mattes make" do
    frame = Mordant::Frame.new(Numo::SFloat.new(3, 420 * 270).rand * 1.2, width: 420, height: 270, encoding: "acescct")
    key = {"contributors" => [{"id" => "k", "kind" => "key", "parameters" => {"lightness_low" => 0.3, "calm" => 0.004}}], "refinements" => [{"id" => "e", "kind" => "edges", "parameters" => {"size" => 0.02}}]}
    [["bloom", {"amount" => 0.4}], ["halation", {"amount" => 0.5, "from" => 0.0, "colour" => [1, 0, 0.2]}], ["detail", {"amounts" => [0.4, 0, -0.3, 0], "colour" => 0.5}], ["grain", {"amount" => 1.0}]].product([nil, key]) do |(kind, parameters), matte|
      step = {"id" => "s", "kind" => kind, "parameters" => parameters, **(matte ? {"matte" => matte} : {})}
      make = -> { Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new("steps" => [step]).at(0), source: "acescct").apply(frame).rgb.to_binary }
      described_class.count = 3
      parted = make.call
      described_class.count = 1
      expect(parted == make.call).to be(true), step.inspect
    end
  end

  it "tells of what is none in any part" do
    kernel = Mordant::Pointwise::Kernel.new([:floats]) { |plane| [plane * 2] }
    plane, made = Numo::SFloat.new(120_000).fill(0.5), Numo::SFloat.new(120_000).allocate
    expect(kernel.run(120_000, [plane], [made])).to be(true)
    [3, 60_000, 119_999].each do |at|
      odd = plane.dup.tap { |one| one[at] = Float::NAN }
      expect(kernel.run(120_000, [odd], [made])).to be(false)
    end
  end
end
