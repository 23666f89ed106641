# frozen_string_literal: true

require "spec_helper"

# Documents of the format, process by process.
module ClfText
  def document(inside, version: "3.0")
    "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<ProcessList id=\"try\" compCLFversion=\"#{version}\">\n#{inside}\n</ProcessList>\n"
  end

  def process(name, inside, depths: %w[32f 32f], **attributes)
    more = attributes.map { |key, value| " #{key}=\"#{value}\"" }.join
    "<#{name} inBitDepth=\"#{depths[0]}\" outBitDepth=\"#{depths[1]}\"#{more}>\n#{inside}\n</#{name}>"
  end
end

RSpec.describe Mordant::Lut::Clf do
  extend ClfText
  include ClfText

  def run(inside, rows)
    operations = described_class.parse(document(inside)).operations
    Mordant::Pointwise::Chain.new(operations).exact(Numo::DFloat.cast(rows).transpose.dup).transpose.to_a
  end

  # Worked by hand from the format's equations.
  it "multiplies by a matrix, its values in the bit depths of the file" do
    ten = process("Matrix", "<Array dim=\"3 4\">2 0 0 102.3  0 1 0 0  0 0 1 -51.15</Array>", depths: %w[10i 10i])
    expect(run(ten, [[0.5, 0.25, 0.25]])[0]).to match([1.1, 0.25, 0.2].map { |x| be_within(1e-9).of(x) })
    scaled = process("Matrix", "<Array dim=\"3 3\">255 0 0 0 255 0 0 0 255</Array>", depths: %w[32f 8i])
    expect(run(scaled, [[0.5, 1.0, 2.0]])[0]).to match([0.5, 1.0, 2.0].map { |x| be_within(1e-12).of(x) })
  end

  it "keeps to a range, or goes on beyond it" do
    inside = "<minInValue>64</minInValue><maxInValue>940</maxInValue><minOutValue>0</minOutValue><maxOutValue>1023</maxOutValue>"
    legal = 64 / 1023.0
    expect(run(process("Range", inside, depths: %w[10i 10i]), [[legal, 940 / 1023.0, 0.0]])[0]).to match([0.0, 1.0, 0.0].map { |x| be_within(1e-9).of(x) })
    open = run(process("Range", inside, depths: %w[10i 10i], style: "noClamp"), [[0.0, 1.0, legal]])[0]
    expect(open).to match([-64 / 876.0, (1023 - 64) / 876.0, 0.0].map { |x| be_within(1e-9).of(x) })
    expect(run(process("Range", "<minInValue>0</minInValue><minOutValue>0</minOutValue>"), [[-1.0, 0.5, 7.0]])[0]).to eq([0.0, 0.5, 7.0])
  end

  it "reads curves: of one column, of three, over half floats, and of raw halfs" do
    expect(run(process("LUT1D", "<Array dim=\"3 1\">0 255 1023</Array>", depths: %w[10i 10i]), [[0.25, 0.5, 2.0]])[0])
      .to match([127.5 / 1023, 255 / 1023.0, 1.0].map { |x| be_within(1e-9).of(x) })
    expect(run(process("LUT1D", "<Array dim=\"2 3\">0 0 1  1 0.5 0</Array>"), [[0.5, 0.5, 0.25]])[0]).to eq([0.5, 0.25, 0.75])
    halfs = Mordant::Media::Half.decode(Numo::UInt16.cast(Numo::Int32.new(65_536).seq))
    squares = Numo::DFloat.cast(halfs.clip(-200, 200)).to_a.map { |x| x.nan? ? 0.0 : x * x }
    found = run(process("LUT1D", "<Array dim=\"65536 1\">#{squares.join(" ")}</Array>", halfDomain: "true", depths: %w[16f 32f]), [[0.5, -3.0, 100.0], [1e-6, 0.0003, 7.7]])
    expect(found.flatten).to match([0.25, 9.0, 10_000.0, 1e-12, 9e-8, 59.29].map { |x| be_within(1e-6 * x + 1e-12).of(x) })
    raw = process("LUT1D", "<Array dim=\"2 1\">0 15360</Array>", rawHalfs: "true", depths: %w[32f 16f])
    expect(run(raw, [[0.25, 0.5, 1.0]])[0]).to eq([0.25, 0.5, 1.0])
  end

  it "keeps the hue where a curve is told to" do
    curve = ->(**more) { process("LUT1D", "<Array dim=\"2 3\">0 0 0  1 0.5 0.2</Array>", **more) }
    red, green, blue = run(curve.call(hueAdjust: "dw3"), [[0.8, 0.5, 0.2]])[0]
    expect((green - blue) / (red - blue)).to be_within(1e-12).of(0.5)
    expect([red, blue]).to match([be_within(1e-12).of(0.8), be_within(1e-12).of(0.04)])
    expect(run(curve.call(hueAdjust: "dw3"), [[0.5, 0.5, 0.5]])[0]).to eq(run(curve.call, [[0.5, 0.5, 0.5]])[0])
  end

  it "reads a lattice with blue fastest, as the reference tables do" do
    Reference.entries("luts").select { |entry| entry["lut"]["data"].size == 125 }.each do |entry|
      nodes = entry["lut"]["data"].each_slice(25).map { |plane| plane.each_slice(5).to_a } # [b][g][r]
      blue_fastest = (0..4).to_a.product((0..4).to_a, (0..4).to_a).flat_map { |r, g, b| nodes[b][g][r] }
      method = %w[tetrahedral trilinear].find { |name| entry["id"].include?(name) }
      inside = process("LUT3D", "<Array dim=\"5 5 5 3\">#{blue_fastest.join(" ")}</Array>", interpolation: method)
      expect(run(inside, entry["inputs"])).to match_rows(entry["expected"], absolute: 2e-6, row: 5e-6)
    end
  end

  it "raises to powers of every style, and back" do
    values = [[-0.5, 0.2, 2.0]]
    power = ->(style, **more) { process("Exponent", "<ExponentParams exponent=\"2.2\"#{more.map { |k, v| " #{k}=\"#{v}\"" }.join}/>", style:) }
    expect(run(power["basicFwd"], values)[0]).to match([0.0, 0.2**2.2, 2.0**2.2].map { |x| be_within(1e-12).of(x) })
    expect(run(power["basicMirrorFwd"], values)[0][0]).to be_within(1e-12).of(-(0.5**2.2))
    expect(run(power["basicPassThruFwd"], values)[0][0]).to eq(-0.5)
    {"basicMirror" => {}, "basicPassThru" => {}, "monCurve" => {offset: 0.055}, "monCurveMirror" => {offset: 0.099}}.each do |style, more|
      expect(run([power["#{style}Fwd", **more], power["#{style}Rev", **more]].join, values)).to match_rows(values, absolute: 1e-12)
    end
    srgb = process("Exponent", "<ExponentParams exponent=\"2.4\" offset=\"0.055\"/>", style: "monCurveFwd")
    expect(run(srgb, [[0.5, 0.02, 1.0]])[0]).to match([0.2140411, 0.02 / 12.9232102, 1.0].map { |x| be_within(1e-6).of(x) })
  end

  it "takes logarithms of every style, and back" do
    values = [[0.001, 0.18, 4.0]]
    expect(run(process("Log", "", style: "log10"), values)[0]).to match([-3.0, Math.log10(0.18), Math.log10(4)].map { |x| be_within(1e-12).of(x) })
    expect(run(process("Log", "", style: "log2") + process("Log", "", style: "antiLog2"), values)).to match_rows(values, absolute: 1e-12)
    cct = "<LogParams base=\"2\" logSideSlope=\"0.0570776255707763\" logSideOffset=\"0.554794520547945\" linSideBreak=\"0.0078125\"/>"
    found = run(process("Log", cct, style: "cameraLinToLog"), values)
    expect(found[0]).to match(Mordant::Colour::Transfer::Acescct.encode(Numo::DFloat[*values[0]]).to_a.map { |x| be_within(1e-9).of(x) })
    expect(run(process("Log", cct, style: "cameraLinToLog") + process("Log", cct, style: "cameraLogToLin"), [[-0.01, 0.0, 9.0]])).to match_rows([[-0.01, 0.0, 9.0]], absolute: 1e-12)
    each = %w[R G B].each_with_index.map { |name, i| "<LogParams channel=\"#{name}\" base=\"10\" linSideSlope=\"#{i + 1}\" linSideOffset=\"0.1\"/>" }.join
    expect(run(process("Log", each, style: "linToLog"), [[0.9, 0.45, 0.3]])[0]).to all(be_within(1e-12).of(0.0))
  end

  it "corrects as the CDL does, in its four styles" do
    inside = "<SOPNode><Slope>1.2 1 0.9</Slope><Offset>-0.1 0 0.02</Offset><Power>1 1.3 0.8</Power></SOPNode><SatNode><Saturation>1.2</Saturation></SatNode>"
    cdl = Mordant::Colour::CDL.new(slope: [1.2, 1, 0.9], offset: [-0.1, 0, 0.02], power: [1, 1.3, 0.8], saturation: 1.2)
    rows = [[0.05, 0.4, 0.7], [1.2, -0.1, 0.3]]
    {"Fwd" => cdl.operations, "FwdNoClamp" => cdl.operations(clamp: false), "RevNoClamp" => cdl.inverse_operations(clamp: false)}.each do |style, operations|
      wanted = Mordant::Pointwise::Chain.new(operations).exact(Numo::DFloat.cast(rows).transpose.dup).transpose.to_a
      expect(run(process("ASC_CDL", inside, style:), rows)).to match_rows(wanted, absolute: 1e-12)
    end
  end

  it "reads what it writes, whatever the process" do
    inside = [process("Range", "<minInValue>0</minInValue><maxInValue>1</maxInValue><minOutValue>0</minOutValue><maxOutValue>0.5</maxOutValue>"),
      process("Matrix", "<Array dim=\"3 4\">1 0.1 0 0.01 0 1 0 0 0.2 0 1 0</Array>"), process("LUT1D", "<Array dim=\"3 3\">0 0 0 0.2 0.4 0.6 1 1 1</Array>", hueAdjust: "dw3"),
      process("Exponent", "<ExponentParams exponent=\"2.4\" offset=\"0.055\" channel=\"R\"/><ExponentParams exponent=\"2\" offset=\"0.05\"/>", style: "monCurveRev"),
      process("Log", "<LogParams base=\"10\" linSideOffset=\"0.1\"/>", style: "linToLog"), process("ASC_CDL", "<SatNode><Saturation>0.8</Saturation></SatNode>", style: "FwdNoClamp"),
      process("LUT3D", "<Array dim=\"2 2 2 3\">0 0 0 0 0 1 0 1 0 0 1 1 1 0 0 1 0.5 1 1 1 0 1 1 1</Array>", interpolation: "tetrahedral")].join("\n")
    list = described_class.parse(document("<Description>tried</Description><InputDescriptor>a</InputDescriptor>#{inside}"))
    again = described_class.parse(described_class.write(list))
    rgb = Numo::DFloat.new(3, 200).rand * 1.4 - 0.2
    expect((Mordant::Pointwise::Chain.new(again.operations).exact(rgb) - Mordant::Pointwise::Chain.new(list.operations).exact(rgb)).abs.max).to be < 1e-8
    expect([again.id, again.descriptions, again.input]).to eq(["try", ["tried"], "a"])
  end

  {
    "another document" => ["<html/>", /:1: expected a ProcessList, found "html"/],
    "XML that ends" => ["<ProcessList id=\"a\">", /well-formed XML/],
    "an unknown process" => [[process("Blur", "")], /:3: expected a process \(ASC_CDL, Exponent, LUT1D/],
    "no process" => [["<Description>x</Description>"], /at least one process/],
    "a missing row" => [[process("LUT3D", "<Array dim=\"2 2 2 3\">0 0 0</Array>")], /:4: expected 24 numbers in Array, found 3/],
    "a word in a table" => [[process("LUT1D", "<Array dim=\"2 1\">0 one</Array>")], /expected finite numbers in Array, found "one"/],
    "NaN in a matrix" => [[process("Matrix", "<Array dim=\"3 3\">1 0 0 0 NaN 0 0 0 1</Array>")], /found "NaN"/],
    "odd dimensions" => [[process("LUT3D", "<Array dim=\"2 3 2 3\">#{"0 " * 36}</Array>")], /dim n n n 3/],
    "a table too large to be one" => [[process("LUT1D", "<Array dim=\"99999999 3\">0</Array>")], /at most 8000000 numbers/],
    "bit depths that do not meet" => [[process("Log", "", style: "log2", depths: %w[32f 10i]), process("Log", "", style: "log2")], /inBitDepth 10i, as the process before/],
    "an unknown bit depth" => [[process("Log", "", style: "log2", depths: %w[9i 32f])], /inBitDepth of Log: 8i, 10i/],
    "a range upside down" => [[process("Range", "<minInValue>1</minInValue><maxInValue>0</maxInValue><minOutValue>0</minOutValue><maxOutValue>1</maxOutValue>")], /maxInValue above minInValue/],
    "half a range" => [[process("Range", "<minInValue>1</minInValue>")], /minInValue with minOutValue/],
    "an exponent of 0" => [[process("Exponent", "<ExponentParams exponent=\"0\"/>", style: "basicFwd")], /exponent in/],
    "a logarithm to base 1" => [[process("Log", "<LogParams base=\"1\"/>", style: "linToLog")], /base above 0 and not 1/],
    "a style there is not" => [[process("Exponent", "<ExponentParams exponent=\"2\"/>", style: "sideways")], /style of Exponent/],
    "a CDL that cannot go back" => [[process("ASC_CDL", "<SatNode><Saturation>0</Saturation></SatNode>", style: "Rev")], /slope and saturation above 0/],
    "an index map" => [[process("LUT1D", "<IndexMap dim=\"2\">0@0 1@1</IndexMap><Array dim=\"2 1\">0 1</Array>")], /no IndexMap/]
  }.each do |name, (inside, words)|
    it "refuses #{name}, with the line" do
      text = inside.is_a?(Array) ? document(inside.join) : inside
      expect { described_class.parse(text, path: "try.clf") }.to raise_error(Mordant::FormatError) { |error| expect(error.message).to match(words) }
    end
  end
end
