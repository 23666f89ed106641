# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Media::Deflater do
  let(:plain) { "\0\1\2\3\4\5\6\7".b * 400 + Random.new(7).bytes(1000) }
  let(:noise) { Random.new(8).bytes(5000) }

  def holds
    packed = described_class.new.smaller(plain)
    expect(packed.bytesize).to be < plain.bytesize * 0.7
    expect(Zlib.inflate(packed)).to eq(plain)
    expect(described_class.new.smaller(noise)).to be_nil
    expect(described_class.new.smaller("")).to be_nil
  end

  it "packs what zlib unpacks, and nothing that would become no smaller" do
    expect(described_class.functions).not_to be_nil
    holds
  end

  it "does the same where the library is not installed" do
    allow(described_class).to receive(:functions)
    holds
  end

  it "packs block after block, in several threads at once" do
    packed = Array.new(4) { |at| Thread.new { described_class.new.then { |deflater| Array.new(20) { |turn| deflater.smaller("#{at}#{turn}".b * 500) } } } }.flat_map(&:value)
    expect(packed.map { |bytes| Zlib.inflate(bytes) }).to eq(Array.new(4) { |at| Array.new(20) { |turn| "#{at}#{turn}".b * 500 } }.flatten)
  end
end
