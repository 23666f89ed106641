# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe Server::Events, type: :request do
  include Listening

  let(:cut) { Studio.cut(@folder) }

  before do
    stub_const("Server::Events::LOOK_EVERY", 0.02)
    allow(described_class).to receive(:current).and_return(events)
  end

  let(:events) { described_class.new(most: 6) }

  # @return [Array<Array(String, Hash)>] kind and data of each event, until there are so many; but what people hear of each other, see Together
  def heard(io, count)
    text = +""
    text << io.readpartial(65_536) while text.scan(/^event: (?!standing|presence)/).size < count && io.wait_readable(3)
    text.scan(/^event: (?!standing|presence)(\w+)\ndata: (.*)\n\n/).map { |kind, data| [kind, JSON.parse(data)] }
  end

  def stream(port, projects)
    TCPSocket.new("127.0.0.1", port).tap { |socket| socket.write("GET /api/events?projects=#{projects} HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n") }
  end

  it "tells progress when it changes, to those who look at the project" do
    call(:post, "/cuts/#{cut.id}/orders", {outputs: [{"format" => "h264", "target" => "television"}], template: "{project}"})
    other = Server::Project.create!(name: "Other", width: 64, height: 36)
    mine, theirs = Array.new(2) { UNIXSocket.pair }
    events.follow(mine[1], [cut.project_id])
    events.follow(theirs[1], [other.id])
    expect(heard(mine[0], 2)).to match([["output", include("project" => cut.project_id, "of" => include("status" => "waiting", "frames" => 14))], ["trouble", {"project" => nil, "of" => {"words" => nil}}]])
    Server::Output.first.update!(status: "running", done: 7)
    expect(heard(mine[0], 1)).to match([["output", include("of" => include("status" => "running", "done" => 7))]])
    expect(heard(theirs[0], 2).map(&:first)).to eq(["trouble"])
    [mine, theirs].each { |pair| pair[0].close }
    sleep 0.02 until events.size.zero?
    expect([mine[1], theirs[1]]).to all(be_closed)
  end

  it "ends with the sign-in by which it was opened" do
    person = Server::Person.made("name" => "Ida", "role" => "administer", "password" => "ferry at low tide")
    sign_in, = Server::SignIn.begin(person, address: "x", browser: "x")
    stub_const("Server::Events::MOST_OF_ONE", 1)
    there, here = UNIXSocket.pair
    events.follow(here, [], sign_in: sign_in.id)
    heard(there, 1)
    expect { events.make_room(sign_in.id) }.to raise_error(Server::Events::TooMany)
    expect { events.make_room(sign_in.id + 1) }.not_to raise_error
    sign_in.destroy!
    sleep 0.02 until events.size.zero?
    expect(here).to be_closed
  ensure
    Server::Person.forget
  end

  it "lets go of who takes nothing" do
    stub_const("Server::Events::Stream::MOST_WAITING", 50_000)
    _there, here = UNIXSocket.pair
    number = 0
    allow(described_class).to receive(:work) { {["output", 1, 1] => {id: 1, much: "x" * 30_000, number: number += 1}} }
    events.follow(here, [1])
    20.times { sleep 0.05 unless events.size.zero? }
    expect([events.size, here.closed?]).to eq([0, true])
  end

  it "holds no thread of the web server, and says when there are too many" do
    listening(threads: 2) do |port|
      streams = Array.new(6) { stream(port, cut.project_id) }
      streams.each { |io| expect(heard(io, 1).first.first).to eq("trouble") }
      expect(head(port, "GET /api/projects HTTP/1.1", "Host: 127.0.0.1", "Connection: close").first).to eq(200)
      expect(head(port, "GET /api/events HTTP/1.1", "Host: 127.0.0.1", "Connection: close")).to match([503, /close one/])
      streams.pop.close
      sleep 0.02 until events.size == 5
      streams << stream(port, "")
      expect(heard(streams.last, 1)).to eq([["trouble", {"project" => nil, "of" => {"words" => nil}}]])
      streams.each(&:close)
    end
  end

  it "goes on for the next browser after an error of another kind" do
    pairs = Array.new(2) { UNIXSocket.pair }
    failing = true
    allow(described_class).to receive(:work) { failing ? raise("odd") : {} }
    allow(Thread).to receive(:new).and_wrap_original { |made, *rest, &work| made.call(*rest, &work).tap { |thread| thread.report_on_exception = false } }
    events.follow(pairs[0][1], [1])
    sleep 0.1
    failing = false
    events.follow(pairs[1][1], [1])
    pairs.each { |there, _| expect(heard(there, 1).map(&:first)).to eq(["trouble"]) }
    pairs.each { |there, _| there.close }
  end

  it "refuses projects that are not there, and too many" do
    {"x" => [422, "projects"], "1,,2" => [422, "projects"], Array.new(17, 1).join(",") => [422, "projects"], "99" => [404, nil]}.each do |projects, answer|
      call(:get, "/events?projects=#{projects}")
      expect([last_response.status, json["path"]]).to eq(answer), projects
    end
  end

  it "tells what is wrong with the database, and when nothing is any more" do
    there, here = UNIXSocket.pair
    failing = true
    allow(described_class).to receive(:work) { failing ? raise(ActiveRecord::ConnectionNotEstablished, "gone") : {} }
    events.follow(here, [1])
    expect(heard(there, 1)).to match([["trouble", include("of" => {"words" => /database does not answer.*kept here/})]])
    failing = false
    expect(heard(there, 1)).to match([["trouble", include("of" => {"words" => nil})]])
    there.close
  end
end
