# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Pointwise::Lately do
  let(:made) { [] }
  let(:lately) { described_class.new(2) }

  def fetch(key, size = 4)
    lately.fetch(key) { Numo::SFloat.new(size).fill(key.hash % 7).tap { made << key } }
  end

  it "makes a plane once for equal keys" do
    first = fetch([1, Mordant::Grade::Window.whole(2, 2)])

    expect(fetch([1, Mordant::Grade::Window.whole(2, 2)])).to be first
    expect(made.size).to eq 1
  end

  it "lets go of what was asked for longest ago" do
    fetch(:a)
    fetch(:b)
    fetch(:a)
    fetch(:c)
    fetch(:a)
    fetch(:b)

    expect(made).to eq %i[a b c b]
  end

  it "keeps nothing larger than a screen's picture" do
    2.times { fetch(:large, described_class::LARGEST + 1) }
    2.times { fetch(:fits, described_class::LARGEST) }

    expect(made).to eq %i[large large fits]
  end

  it "keeps nothing of what could not be made" do
    expect { lately.fetch(:a) { raise Mordant::ShapeError, "odd" } }.to raise_error Mordant::ShapeError
    fetch(:a)

    expect(made).to eq %i[a]
  end

  it "serves threads at once" do
    found = Array.new(4) { |thread| Thread.new { Array.new(200) { |round| [round % 5, lately.fetch(round % 5) { Numo::SFloat[round % 5, thread] }[0].to_i] } } }.flat_map(&:value)

    expect(found).to all(satisfy { |key, value| key == value })
  end
end
