# frozen_string_literal: true

require "spec_helper"
require "timeout"

# Sound files of every kind that is read, mutated: cut off, with bytes changed, taken out and
# doubled, with numbers made odd, in other encodings. Whatever a reader says of one must be an
# error of ours, in UTF-8, short, and soon.
RSpec.describe "Readers and mutated files", :folder do
  numbers = ["nan", "-1", "1e999", "0", "99999999999", "1e-400", ""]

  define_method(:mutated) do |bytes, random|
    case random.rand(8)
    when 0 then bytes.byteslice(0, random.rand(bytes.bytesize + 1))
    when 1 then bytes.dup.tap { |out| random.rand(1..8).times { out.setbyte(random.rand(out.bytesize), random.rand(256)) } }
    when 2 then (at = random.rand(bytes.bytesize)).then { bytes.byteslice(0, at) + bytes.byteslice(at + random.rand(1..40)..).to_s }
    when 3 then (at = random.rand(bytes.bytesize)).then { bytes.byteslice(0, at) + bytes.byteslice(at, 200) * random.rand(1..20) + bytes.byteslice(at..) }
    when 4 then bytes.lines.tap { |lines| lines.delete_at(random.rand(lines.size)) }.join
    when 5 then bytes.lines.shuffle(random:).join
    when 6 then bytes.gsub(/-?\d+(?:\.\d+)?/n) { |number| (random.rand(12) == 0) ? numbers.sample(random:) : number }
    else bytes.encode("UTF-16LE", "BINARY", invalid: :replace, undef: :replace).b.then { |wide| (random.rand(2) == 0) ? "\xFF\xFE".b + wide : wide }
    end
  end

  def clf
    lattice = Mordant::Lut::Lattice.new(Numo::DFloat.cast(Mordant::Lut::Lattice.nodes(2)).transpose.dup, size: 2)
    Mordant::Lut::Clf.write(Mordant::Lut::ProcessList.new(id: "a", name: "a", input: "x", output: "y", nodes: [Mordant::Lut::Clf::Lut3d.new(lattice)]))
  end

  let(:cube) { "TITLE \"a\"\nLUT_3D_SIZE 2\nDOMAIN_MIN 0 0 0\nDOMAIN_MAX 1 1 1\n#{(0...8).map { |n| [n & 1, n >> 1 & 1, n >> 2].map(&:to_f).join(" ") }.join("\n")}\n" }
  let(:cdl) { Mordant::Colour::CDLDocument.write([Mordant::Colour::CDL.new(slope: [1.1, 1, 0.9], offset: [0, 0.01, 0], power: [1, 1, 1.2], saturation: 0.9, id: "a")]) }
  let(:edl) { File.read(File.expand_path("../../../demo/salt_lantern.edl", __dir__)) + "* ASC_SOP (1.1 1.0 0.9)(0.0 0.0 0.0)(1.0 1.0 1.0)\n* ASC_SAT 0.9\n" }
  let(:swatch) { Mordant::Grade::SwatchFile.write(Mordant::Media::Png.encode(Frames.flat([0.2, 0.4, 0.6], width: 8, height: 8)), {"name" => "a", "steps" => []}) }
  let(:exr) { Mordant::Media::EXR.new(primaries: Mordant::Colour::Primaries::AP1, rate: 24r).encode(Frames.flat([0.2, 0.4, 0.6], width: 8, height: 8)) }
  let(:encoding) { "id: quay\nlabel: Quay log\nprimaries: BT.709\ncurve: {kind: gamma, gamma: 2.2}\n" }
  let(:list) { edl + "M2   H017       048.0   05:52:30:04\n* REEL: H017_LONG REPLACED BY: H017\n" }
  let(:timeline) { Mordant::Cut::OpenTimeline.write([20, 30].map { |length| Mordant::Cut::Written.new(name: "a", url: "a.mov", source_in: Mordant::Cut::Timecode.new(9, 24r), length:, available: [Mordant::Cut::Timecode.new(0, 24r), 99], dissolve: length / 30 * 6, reel: "H1", record_in: Mordant::Cut::Timecode.new(86_400, 24r)) }, name: "X") }
  let(:recipe) { {"steps" => [{"id" => "a", "kind" => "balance", "parameters" => {"exposure" => 1.0, "gain" => [1, 1, 1, 1]}}]}.to_json }

  {cube: [".cube", ->(path) { Mordant::Lut::Cube.read(path) }], clf: [".clf", ->(path) { Mordant::Lut::Clf.read(path) }], cdl: [".ccc", ->(path) { Mordant::Colour::CDLDocument.read(path) }],
   edl: [".edl", ->(path) { Mordant::Cut::EDLCorrections.read(path) }], swatch: [".png", ->(path) { Mordant::Grade::SwatchFile.read(File.binread(path)) }],
   list: [".edl", ->(path) { Mordant::Cut::List.read(path).to_h.to_json }], timeline: [".otio", ->(path) { Mordant::Cut::List.read(path).to_h.to_json }],
   exr: [".exr", ->(path) { Mordant::Media::ExrHeader.new(path).encoding }], encoding: [".yml", ->(path) { Mordant::Colour::EncodingFile.read(path) }],
   recipe: [".json", ->(path) { Mordant::Grade::Recipe.from_json(File.read(path)) }]}.each do |kind, (ending, read)|
    it "says what is wrong with #{kind} files" do
      random = Random.new(kind.to_s.sum)
      sound = public_send(kind).b
      path = File.join(@folder, "quay#{ending}")
      250.times do |round|
        bytes = mutated(sound, random)
        File.binwrite(path, bytes)
        begin
          Timeout.timeout(3) { read.call(path) }
        rescue Mordant::Error => e
          expect([e.message.encoding, e.message.valid_encoding?]).to eq([Encoding::UTF_8, true]), "round #{round}: #{e.message.inspect}"
          expect(e.message.length).to be < 600
        rescue => e
          raise "round #{round}: #{e.class}: #{e.message[0, 200]}\n#{bytes[0, 300].inspect}\n#{e.backtrace.first(4).join("\n")}"
        end
      end
    end
  end
end
