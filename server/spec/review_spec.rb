# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe Server::Review, type: :request do
  include Accounts

  let(:cut) { Studio.cut(@folder) }
  let(:shots) { cut.loaded_shots }

  def link(**values)
    call(:post, "/cuts/#{cut.id}/reviews", {name: "For the producer", **values})
    expect(last_response.status).to eq(201)
    json["address"].delete_prefix("/review/")
  end

  it "opens a stretch to whoever has the link, without an account, and nothing else" do
    secret = link(first: 2, count: 5, days: 3)
    account("administer")
    guest = as(nil)
    expect(ask(guest, "GET", "/reviews/#{secret}")).to eq(200)
    expect(JSON.parse(guest.last_response.body)).to include("name" => "For the producer", "cut" => cut.name, "first" => 2, "count" => 5, "notes" => [])
    expect(ask(guest, "GET", "/reviews/#{secret}/pictures/2")).to eq(200)
    expect(guest.last_response.body.b).to start_with("\x89PNG".b)
    png = Vips::Image.new_from_buffer(guest.last_response.body.b, "")
    guest.get("/api/reviews/#{secret}/pictures/2?quick=1")
    jpeg = Vips::Image.new_from_buffer(guest.last_response.body.b, "")
    expect([guest.last_response.content_type, jpeg.size]).to eq(["image/jpeg", png.size])
    expect((png - jpeg).abs.avg).to be < 4
    expect(ask(guest, "GET", "/reviews/#{secret}/pictures/7")).to eq(422)
    expect(ask(guest, "GET", "/cuts/#{cut.id}")).to eq(401)
    expect(ask(guest, "GET", "/reviews/#{secret}x")).to eq(404)
    expect(described_class.last.mark).not_to include(secret)
    described_class.update_all(ends_at: Time.now - 1)
    expect([ask(guest, "GET", "/reviews/#{secret}"), ask(guest, "GET", "/reviews/#{secret}/pictures/2")]).to eq([404, 404])
  end

  it "has workers render what is to be seen, once, and says what is there" do
    secret = link(first: 0, count: 4)
    render = Server::RangeRender.last
    expect(render).to have_attributes(first: 0, count: 4, status: "waiting")
    call(:get, "/reviews/#{secret}/kept")
    expect([json["spans"], Server::RangeRender.count]).to eq([[], 1])
    work_off
    call(:get, "/reviews/#{secret}/kept")
    expect(json["spans"]).to eq([[0, 4]])
    call(:get, "/reviews/#{secret}")
    stamp = json["stamp"]
    recipe = shots[0].recipe
    recipe.accept(revision: 0, words: "up", document: {"steps" => [{"id" => "a", "kind" => "balance", "parameters" => {"exposure" => 1}}]})
    call(:get, "/reviews/#{secret}")
    expect(json["stamp"]).not_to eq(stamp)
    call(:get, "/reviews/#{secret}/kept")
    expect([Server::RangeRender.count, Server::RangeRender.last.status]).to eq([2, "waiting"])
  end

  it "takes notes with a mark at a frame, which stay with their shot, are answered and closed" do
    secret = link
    frame = shots[1].record_in + 2
    mark = {"kind" => "box", "from" => [0.1, 0.2], "to" => [0.4, 0.5]}
    call(:post, "/reviews/#{secret}/notes", {frame:, words: "his face is too green", by: "Orla Finch", mark:})
    expect([last_response.status, json]).to match([201, include("frame" => frame, "shot" => shots[1].id, "by" => "Orla Finch", "mark" => mark, "closed" => false, "timecode" => cut.timecode(frame).to_s)])
    note = json["id"]
    call(:post, "/cuts/#{cut.id}/notes", {answers: note, words: "half a point less now"})
    call(:patch, "/notes/#{note}", {closed: true})
    call(:get, "/reviews/#{secret}")
    expect(json["notes"]).to match([include("closed" => true, "answers" => [include("by" => "colourist", "words" => "half a point less now")])])
    call(:post, "/cuts/#{cut.id}/assembly", {operation: "trim", shot: shots[0].id, tail: 1, words: "shorter"})
    expect(last_response.status).to eq(200), last_response.body
    call(:get, "/cuts/#{cut.id}/notes")
    moved = cut.reload.shots.reload[1].record_in - shots[1].record_in
    expect([moved.zero?, json.first["frame"]]).to eq([false, frame + moved])
  end

  it "says what is wrong with a note, and keeps none of it" do
    secret = link(first: 0, count: 3)
    good = {frame: 0, words: "x", by: "Orla"}
    {good.merge(words: " ") => "words", good.merge(words: "x" * 2001) => "words", good.merge(by: "") => "by", good.merge(frame: 3) => "frame", good.merge(frame: "0") => "frame",
     good.merge(mark: {kind: "star", from: [0, 0], to: [1, 1]}) => "mark", good.merge(mark: {kind: "box", from: [0, 2], to: [1, 1]}) => "mark"}.each do |body, field|
      call(:post, "/reviews/#{secret}/notes", body)
      expect([last_response.status, json["path"]]).to eq([422, field]), body.inspect
    end
    call(:post, "/cuts/#{cut.id}/reviews", {name: "x", first: 0, count: 10_000})
    expect([last_response.status, json["path"]]).to eq([422, "first"])
    expect(Server::Note.count).to eq(0)
  end

  it "gives notes away as text and as markers that other programs read at the same frames" do
    secret = link
    frame = shots[1].record_in + 2
    call(:post, "/reviews/#{secret}/notes", {frame:, words: "too green\nand dark", by: "Orla Finch"})
    call(:get, "/cuts/#{cut.id}/notes.txt")
    expect(last_response.body).to include("#{cut.timecode(frame)}  #{shots[1].name}  Orla Finch\n  too green\n  and dark\n")
    call(:get, "/cuts/#{cut.id}/notes.otio")
    clips = JSON.parse(last_response.body)["tracks"]["children"][0]["children"].select { |child| child["OTIO_SCHEMA"] == "Clip.1" }
    marker = clips[1]["markers"][0]
    expect(marker).to include("OTIO_SCHEMA" => "Marker.2", "name" => "Orla Finch", "comment" => "too green\nand dark")
    expect(marker["marked_range"]["start_time"]["value"] - clips[1]["source_range"]["start_time"]["value"]).to eq(2.0)
    expect(clips[0]["markers"]).to eq([])
  end
end
