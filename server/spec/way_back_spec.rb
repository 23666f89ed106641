# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "the way back to the edit", type: :request do
  let(:folder) { Dir.mktmpdir("media") }
  let(:cut) { Studio.cut(folder) }
  let(:delivery) { Server::Settings.delivery }

  before do
    FileUtils.rm_rf(delivery)
    FileUtils.mkdir_p(delivery)
    cut.shots.map(&:clip).each_with_index { |clip, index| clip.update!(start_timecode: "0#{index + 1}:00:00:00", reel: "H00#{index + 1}") }
  end

  after { FileUtils.rm_rf(folder) }

  def hand(operation, **values) = call(:post, "/cuts/#{cut.id}/assembly", {operation:, **values})

  def delivered(**body)
    outputs = [{"format" => "ffv1", "target" => "television", "name" => "{shot}"}]
    call(:post, "/cuts/#{cut.id}/orders", {outputs:, template: "x", **body})
    expect(last_response.status).to eq(201), last_response.body
    order = json["id"]
    work_off
    expect(Server::Output.pluck(:status).uniq).to eq(["done"]), Server::Output.pluck(:message).inspect
    order
  end

  # The list of an order, laid over what the order wrote, in a project of its own.
  def conformed(order, format)
    call(:get, "/orders/#{order}/list.#{format}")
    expect(last_response.status).to eq(200), last_response.body
    project = Server::Project.create!(name: "Back #{format} #{order}", width: 64, height: 36, working_space: "display")
    taking = Server::Intake::Taking.new(project, Server::MediaRoot.configure(delivery))
    Dir.children(delivery).select { |name| name.end_with?(".mkv", ".mov") }.sort.each { |name| taking.call(name).update!(encoding: "rec709-bt1886", encoding_reason: "by hand") }
    call(:post, "/projects/#{project.id}/cuts", {name: "Back", list: {name: "back.#{format}", text: last_response.body}})
    expect(last_response.status).to eq(201), last_response.body
    Server::Cut.find(json["id"])
  end

  def codes(of, frame)
    screen = Server::Screens.of(of.project, nil)
    Server::Pictures::Desk.current.picture(Server::Pictures::Wish.new(cut: Server::Cut.find(of.id), frame:, screen:))[1].rgb
  end

  # Each frame is nearest to the one that it is made of; codes beyond the screen do not come back.
  def same_pictures(back)
    theirs, ours = (0...14).map { |frame| codes(back, frame) }, (@ours ||= (0...14).map { |frame| codes(cut, frame) })
    nearest = theirs.map { |picture| ours.map { |other| (picture - other).abs.mean }.then { |away| [away.index(away.min), away.min] } }
    expect(nearest.map(&:last).max).to be < 0.02
    expect(nearest.each_with_index.map { |(index, _), frame| ours[index] == ours[frame] }).to all(be(true)), nearest.inspect
  end

  formats = %w[edl otio]

  it "hands shots over with handles, and lists that relink to them with their transitions" do
    two = cut.shots.last
    hand("transition", shot: two.id, length: 3, wipe: 1)
    hand("speed", shot: two.id, speed: 0.5)
    order = delivered(shots: cut.shots.map(&:id), handles: 3)
    formats.each do |format|
      back = conformed(order, format)
      expect(back.shots.map { |shot| shot.to_h.values_at(:record_in, :length, :dissolve, :wipe, :speed, :link) }).to eq([[0, 8, 0, nil, 1.0, "reel and timecode"], [8, 6, 3, 1, 1.0, "reel and timecode"]]), format
      same_pictures(back)
    end
  end

  it "bakes transitions into shots if that was asked for, and lists then cut" do
    order = delivered(shots: cut.shots.map(&:id), handles: 2, baked: true)
    formats.each do |format|
      back = conformed(order, format)
      expect(back.shots.map { |shot| [shot.length, shot.dissolve] }).to eq([[8, 0], [6, 0]]), format
      same_pictures(back)
    end
  end

  it "hands the programme over, which lists name by record times, and nothing differs in length or sync" do
    hand("delete", shots: [cut.shots.first.id], black: true)
    order = delivered
    formats.each do |format|
      back = conformed(order, format)
      expect(back.shots.map { |shot| shot.to_h.values_at(:source_in, :length, :dissolve) }).to eq([[0, 8, 0], [8, 6, 0]]), format
      same_pictures(back)
    end
  end

  it "writes a list of the cut's own sources" do
    call(:get, "/cuts/#{cut.id}/list.edl")
    expect(last_response.body).to include("002  H002     V     D    002 02:00:00:02 02:00:00:08 01:00:00:08 01:00:00:14", "* TO CLIP NAME: two.mkv")
    call(:get, "/cuts/#{cut.id}/list.otio")
    expect(JSON.parse(last_response.body)["tracks"]["children"][0]["children"].map { |child| child["OTIO_SCHEMA"] }).to eq(%w[Clip.1 Transition.1 Clip.1])
    call(:get, "/cuts/#{cut.id}/list.xml")
    expect(json["error"]).to include("edl or otio")
  end
end
