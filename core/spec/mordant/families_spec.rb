# frozen_string_literal: true

require "spec_helper"

# What all members of a family have in common, whichever is asked.
RSpec.describe "Members of a family" do
  describe "of areas" do
    let(:whole) { Mordant::Grade::Window.whole(120, 90) }
    let(:part) { Mordant::Grade::Window.new(left: 31, top: 22, width: 40, height: 30) }
    let(:plane) { Numo::SFloat.new(whole.size).rand }

    def cut(values, from, to) = values.reshape(from.height, from.width)[(to.top - from.top)...(to.top - from.top + to.height), (to.left - from.left)...(to.left - from.left + to.width)].dup

    {
      "narrow taps" => Mordant::Area::Taps.gaussian(1.3), "taps apart" => Mordant::Area::Taps.new([0.5, 0.25], apart: 3),
      "a Gaussian of boxes" => Mordant::Area::Gaussian.new(2.0), "a wide Gaussian" => Mordant::Area::Gaussian.new(4.5, narrowest: 1.6)
    }.each do |name, area|
      it "keep a flat picture, write to none, and are blind beyond their margin: #{name}" do
        flat = area.call(Numo::SFloat.new(whole.size).fill(0.37), whole)
        expect((flat - 0.37).abs.max).to be < 1e-6
        before = plane.dup
        all = area.call(plane, whole)
        expect(plane).to eq(before)
        seen = Mordant::Grade::Window.new(left: 31 - area.margin, top: 22 - area.margin, width: 40 + 2 * area.margin, height: 30 + 2 * area.margin)
        own = area.call(cut(plane, whole, seen).reshape(seen.size), seen)
        expect(cut(own, seen, part)).to eq(cut(all, whole, part)) # to the bit
      end
    end
  end

  describe "of writers", :folder do
    let(:facts) { Mordant::Media::FrameFacts.new(rate: 24r, timecode: start, name: "x", written: Time.at(0)) }
    let(:start) { Mordant::Cut::Timecode.parse("01:00:00:00", 24r) }

    def frame(record) = Mordant::Frame.new(Numo::SFloat.new(3, 64 * 36).fill(0.1 + 0.1 * record), width: 64, height: 36, encoding: "rec709-bt1886")

    {"dpx-10" => Mordant::Deliver::SequenceWriter, "ffv1" => Mordant::Deliver::VideoWriter}.each do |format, kind|
      it "know what they have, take frames in any order, forget some, end twice, and leave nothing when they are given up: #{kind.name[/\w+\z/]}" do
        sheet = Mordant::Deliver::Sheet.new({"format" => format, "view" => Mordant::Grade::View::STANDARD}, width: 64, height: 36)
        path = File.join(@folder, "out#{sheet.format.extension unless sheet.format.sequence?}")
        make = -> { sheet.format.sequence? ? kind.new(sheet, path:, start:, first: 0) : kind.new(sheet, path:, rate: 24r, first: 0) }
        has = ->(writer) { (0..4).select { |record| writer.has?(record) } }
        writer = make.call.tap(&:open)
        [3, 0, 2].each { |record| writer.write(record, frame(record), facts) }
        expect([has[writer], has[make.call]]).to eq([[0, 2, 3]] * 2) # another process sees the same
        writer.forget([2])
        expect(has[writer]).to eq([0, 3])
        [1, 2].each { |record| writer.write(record, frame(record), facts) }
        2.times { writer.seal(0, 4) }
        expect(has[writer].first(4)).to eq([0, 1, 2, 3])
        2.times { writer.finish(timecode: start) }
        clip = sheet.format.sequence? ? "#{path}/out.[0086400-0086403].dpx" : path
        found = []
        Mordant::Media::Reader.new(clip, rate: 24r).each(first: 0, count: 4, width: 64, height: 36) { |codes| found << (codes.rgb[1, 0] / 65_535.0).round(2) }
        expect(found).to eq([0.1, 0.2, 0.3, 0.4])
        expect(Dir.children(@folder)).to eq([File.basename(path)])
        other = sheet.format.sequence? ? kind.new(sheet, path: "#{path}_2", start:, first: 0) : kind.new(sheet, path: "#{path}_2", rate: 24r, first: 0)
        other.open
        other.write(0, frame(0), facts)
        other.abandon
        expect(Dir.children(@folder)).to eq([File.basename(path)])
      end
    end
  end

  describe "of instruments" do
    let(:wanted) { {"traces" => true, "vectorscope" => 1, "histogram" => true, "solid" => "codes"} }

    def read(values, kind) = Mordant::Scopes::Instruments.new(Mordant::Scopes::Signal.new(Mordant::Frame.new(values, width: 48, height: 32, encoding: "rec709-bt1886")), wanted.slice(kind))

    Mordant::Scopes::Instruments::KINDS.each do |kind|
      it "send what JSON and bytes can hold, the same for the same picture, whatever is in it: #{kind}" do
        Numo::NArray.srand(9)
        rgb = Numo::SFloat.new(3, 48 * 32).rand
        one, again = read(rgb.dup, kind), read(rgb.dup, kind)
        expect([one.header, one.parts]).to eq([again.header, again.parts])
        expect(one.parts.values).to all(be_a(String) & have_attributes(bytesize: be > 0))
        expect(JSON.parse(JSON.generate(one.header))).to include("pixels" => 48 * 32)
        odd = rgb.dup
        odd[true, 0...6] = Numo::SFloat.cast([[Float::NAN, Float::INFINITY, -Float::INFINITY, 1e30, -1e30, 0]] * 3)
        sizes = ->(made) { made.parts.transform_values(&:bytesize) }
        expect(sizes[read(odd, kind)].keys).to eq(sizes[one].keys)
        expect { JSON.generate(read(odd, kind).header) }.not_to raise_error
      end
    end

    it "refuse what is none of them" do
      expect { Mordant::Scopes::Instruments.checked("waveform" => true) }.to raise_error(Mordant::ParameterError, /traces, vectorscope, histogram, solid/)
    end
  end
end
