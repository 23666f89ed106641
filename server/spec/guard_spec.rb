# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe Server::Guard, type: :request do
  include Listening

  it "serves loopback names only" do
    header "Host", "evil.example"
    get "/api/projects"
    expect(last_response.status).to eq(403)
    %w[localhost:4680 127.0.0.1 [::1]:4680].each do |host|
      header "Host", host
      get "/api/projects"
      expect(last_response.status).to eq(200), host
    end
  end

  it "refuses writes from other sites and without the token" do
    call(:post, "/projects", {name: "Mine"}, Origin: "http://evil.example")
    expect([last_response.status, json["error"]]).to match([403, /other sites/])
    header "Origin", nil
    header "X-Mordant-Token", "guess"
    header "Host", "127.0.0.1"
    post "/api/projects", {name: "Mine"}.to_json
    expect([last_response.status, json["error"]]).to match([403, /load it again/])
    expect(Server::Project.count).to eq(0)
    header "Origin", "http://127.0.0.1"
    call(:post, "/projects", {name: "Mine"})
    expect(last_response.status).to eq(201)
  end

  it "gives no data to other sites, and takes no token it has not signed" do
    header "Host", "127.0.0.1"
    %w[cross-site same-site].each do |site|
      header "Sec-Fetch-Site", site
      get "/api/projects"
      expect([last_response.status, last_response.headers["content-security-policy"]]).to match([403, /default-src/]), site
      get "/%61pi/projects" # the same address
      expect(last_response.status).to eq(403), site
    end
    get "/" # a page may be come to from anywhere
    expect(last_response.status).not_to eq(403)
    header "Sec-Fetch-Site", "same-origin"
    get "/api/projects"
    expect(last_response.status).to eq(200)
    set_cookie "mordant_token=mine"
    header "X-Mordant-Token", "mine"
    post "/api/projects", {name: "Mine"}.to_json
    expect([last_response.status, Server::Project.count]).to eq([403, 0])
    get "/api/projects"
    expect(rack_mock_session.cookie_jar["mordant_token"]).to eq(Server::Guard.signed(rack_mock_session.cookie_jar["mordant_token"].split(".").first))
  end

  it "sends a strict policy with every answer, errors included" do
    call(:get, "/nothing")
    expect([last_response.status, json["error"]]).to match([404, /nothing at/])
    expect(last_response.headers["content-security-policy"]).to include("default-src 'self'", "frame-ancestors 'none'")
    expect(last_response.headers["content-security-policy"]).not_to include("unsafe")
  end

  it "refuses bodies that are too large or no JSON" do
    call(:post, "/projects", "[1]")
    expect([last_response.status, json["path"]]).to eq([422, "body"])
    call(:post, "/projects", "{")
    expect(last_response.status).to eq(422)
    call(:post, "/projects", " " * (Server::Guard::LARGEST_BODY + 1))
    expect(last_response.status).to eq(413)
    call(:post, "/projects", {name: ""})
    expect([last_response.status, json["path"]]).to eq([422, "name"])
  end

  it "refuses by the head alone, before a body is read" do
    host = "Host: 127.0.0.1"
    token = Server::Guard.signed("x")
    ours = ["Cookie: mordant_token=#{token}", "X-Mordant-Token: #{token}"]
    much = "Content-Length: 400000000"
    listening do |port|
      {
        ["POST /api/luts HTTP/1.1", "Host: evil.example", much] => [403, /not served/],
        ["POST /api/luts HTTP/1.1", host, "Origin: http://evil.example", much] => [403, /other sites/],
        ["POST /api/luts HTTP/1.1", host, much] => [403, /load it again/],
        ["POST /api/luts HTTP/1.1", host, *ours, much] => [413, /#{Server::Guard::LARGEST_FILE} bytes/o],
        ["POST /api/projects HTTP/1.1", host, *ours, "Content-Length: #{Server::Guard::LARGEST_BODY + 1}"] => [413, /#{Server::Guard::LARGEST_BODY} bytes/o],
        ["POST /api/nothing HTTP/1.1", host, *ours, much] => [404, /nothing at/],
        ["GET /api/projects HTTP/1.1", host, much] => [413, /at most 0 bytes/],
        ["POST /api/projects HTTP/1.1", host, *ours, "Transfer-Encoding: chunked"] => [411, /how long/],
        ["GET /api/projects HTTP/1.1", host, "Connection: close"] => [200, /\[\]/]
      }.each { |lines, answer| expect(head(port, *lines)).to match(answer), lines.first }
    end
  end

  it "does not take what follows a refused head for a request" do
    listening do |port|
      status, rest = head(port, "POST /api/projects HTTP/1.1", "Host: 127.0.0.1", "Content-Length: 60", "", "GET /api/projects HTTP/1.1", "Host: 127.0.0.1")
      expect([status, rest]).to match([403, /\A{"error":[^}]*}\z/])
    end
  end

  it "does not give files outside the built front end away" do
    ["/../../../Gemfile", "/%2e%2e/%2e%2e/Gemfile"].each do |path|
      header "Host", "127.0.0.1"
      get path
      expect(last_response.body).not_to include("rubygems")
    end
  end
end
