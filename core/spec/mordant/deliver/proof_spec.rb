# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Deliver::Proof, :folder do
  # A bright edge that moves right by two pixels a frame, in log codes.
  let(:stage) do
    Class.new do
      attr_reader :asked

      def initialize(width, wrong: {})
        @width, @wrong, @asked = width, wrong, []
      end

      def each_of(_variants, first:, count:)
        (first...(first + count)).each do |record|
          @asked << record
          yield [picture(@wrong.fetch(record, record))], record
        end
      end

      def picture(record)
        height = @width * 9 / 16
        columns = Numo::SFloat.new(@width).seq / @width * 240
        plane = Numo::SFloat.zeros(height, @width) + Numo::SFloat.cast((columns - 20 - 2 * record).abs < 12) * 0.3 + 0.25
        Mordant::Frame.new(Numo::NArray.vstack([plane.reshape(1, @width * height)] * 3), width: @width, height:, encoding: "acescct")
      end
    end
  end
  let(:space) { Mordant::Colour::WorkingSpace.default }
  let(:start) { Mordant::Cut::Timecode.parse("10:00:00:00", 25r) }

  def found(format, view: Mordant::Grade::View::STANDARD, **wrong)
    sheet = Mordant::Deliver::Sheet.new({"format" => format, "view" => view}, width: 256, height: 144)
    path = File.join(@folder, "out#{sheet.format.extension unless sheet.format.sequence?}")
    writer = sheet.format.sequence? ? Mordant::Deliver::SequenceWriter.new(sheet, path:, start:, first: 0) : Mordant::Deliver::VideoWriter.new(sheet, path:, rate: 25r, first: 0)
    describe = ->(record) { [Mordant::Media::FrameFacts.new(rate: 25r, timecode: start + record), {}] }
    Mordant::Deliver::Pass.new(programme: stage.new(256, **wrong), space:, writers: {out: writer}, describe:).run(first: 0, count: 30)
    writer.seal(0, 30)
    writer.finish(timecode: start)
    proof = described_class.new(sheet, space:, count: 30, describe:, edges: [0, 12, 24]) { |width| stage.new(width) }
    Mordant::Deliver::Check.new(writer, rate: 25r, first: 0, count: 30, proof:).call
  end

  it "finds nothing wrong with what is right, at the ends, in the middle and where parts meet" do
    %w[h264-8 dpx-10].each { |format| expect(found(format)).to include(earlier: [], later: [], other: [], unproven: [], compared: 7) }
    expect(found("exr-half", view: Mordant::Grade::View::MASTER)).to include(earlier: [], later: [], other: [], compared: 7)
  end

  it "finds a frame in another one's place, and pictures of something else" do
    shifted = (12..29).to_h { |record| [record, record + 1] }
    expect(found("h264-8", wrong: shifted)).to include(later: [[12, 1], [15, 1], [23, 2]], earlier: [])
    FileUtils.rm_rf(Dir.glob(File.join(@folder, "*")))
    expect(found("png-16", wrong: {11 => 10, 29 => 28})).to include(earlier: [[11, 1], [29, 1]], later: [])
  end

  it "says which frames could not be compared, as their source is gone" do
    sheet = Mordant::Deliver::Sheet.new({"format" => "png-16", "view" => Mordant::Grade::View::STANDARD}, width: 64, height: 36)
    gone = Class.new { def each_of(*, **) = raise(Mordant::MediaError.new("a.mov", "gone")) }.new
    proof = described_class.new(sheet, space:, count: 3, describe: ->(_) { [nil, {}] }) { gone }
    expect(proof.faults({0 => nil, 2 => nil})).to eq(unproven: [0, 2])
  end
end
