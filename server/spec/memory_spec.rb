# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe Server::Memory do
  before do
    stub_const("Server::Memory::RESTING", 0)
    stub_const("Server::Memory::MUCH", 0)
  end

  # Memory as a large picture leaves it behind: freed, and kept by the allocator, as below a block in use.
  def fill
    blocks = Array.new(4000) { "x" * 100_000 }
    last = "y" * 100_000
    blocks.clear
    last
  end

  it "gives back what large pictures left behind, once after each time of work" do
    memory = described_class.new
    memory.during { fill }
    GC.start
    before = memory.size
    memory.look { raise "not too large" }
    expect(before - memory.size).to be > 100_000_000
    expect(GC).not_to receive(:start)
    memory.look
  end

  it "says that it is too large only when it rests" do
    stub_const("Server::Memory::MOST", 0)
    memory = described_class.new
    ended = 0
    memory.during { memory.look { ended += 1 } }
    expect(ended).to eq(0)
    memory.look { ended += 1 }
    expect(ended).to eq(1)
    app = described_class::Counting.new(->(_) { memory.look { ended += 1 } || [200, {}, []] })
    allow(described_class).to receive(:current).and_return(memory)
    expect([app.call({}).first, ended]).to eq([200, 1])
  end
end
