# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe Server::Access, type: :request do
  include Accounts

  let(:roles) { Server::Person::ROLES }

  # @return [Array<String>] every route as it is written in EVERY_ROUTE
  def every_route
    Server::App.routes.except("HEAD").flat_map do |method, all|
      all.filter_map do |pattern, *|
        text = pattern.to_s
        next unless text.start_with?("/api/") && text != "/api/*"

        "#{method} #{text.delete_prefix("/api").gsub(/:(id|clip|slate|frame|secret)\b/, "1").sub(/\.:format$/, Accounts::FORMATS.fetch(text[%r{([^/]*)\.:format}, 1], "")).sub(/\.:(kind|form)$/, ".json")}"
      end
    end
  end
  it "tells nobody that no one has to sign in before it knows, however many ask at once" do
    Server::Person.forget
    allow(Server::Person).to receive(:exists?) { sleep(0.1).then { true } }
    expect(Array.new(4) { |at| Thread.new { sleep(at * 0.02).then { Server::Person.asked? } } }.map(&:value)).to eq([true] * 4)
  end

  it "names somebody for every route, and asks each role on each of them" do
    expect([every_route - Accounts::EVERY_ROUTE.values.flatten, Accounts::EVERY_ROUTE.values.flatten - every_route]).to eq([[], []])
    people = roles.to_h { |role| [role, account(role)] }
    Accounts::EVERY_ROUTE.each do |needed, all|
      all.each do |line|
        method, path = line.split
        expect(Server::Access.needed(method, path)).to eq(needed), line
        next if needed.nil?

        as(nil) { |session| expect(ask(session, method, path)).to eq(401), "#{line}, by nobody" }
        roles.each do |role|
          next if people[role].may?(needed)

          as(people[role]) { |session| expect(ask(session, method, path)).to eq(403), "#{line}, by one who may #{role}" }
        end
      end
    end
  end

  it "lets each role do what it may" do
    cut = Studio.cut(@folder)
    recipe = cut.loaded_shots.first.recipe
    people = roles.to_h { |role| [role, account(role)] }
    may = {
      ["GET", "/cuts/#{cut.id}", nil] => "look",
      ["POST", "/cuts/#{cut.id}/point", {frame: 0, x: 0.5, y: 0.5}] => "look",
      ["POST", "/projects/#{cut.project_id}/undo", nil] => "grade",
      ["GET", "/cuts/#{cut.id}/orders", nil] => "deliver",
      ["GET", "/people", nil] => "administer"
    }
    may.each do |(method, path, body), needed|
      roles.each do |role|
        as(people[role]) { |session| expect(ask(session, method, path, body)).to eq(people[role].may?(needed) ? 200 : 403), "#{method} #{path} by #{role}" }
      end
    end
    as(people["look"]) { |session| expect(ask(session, "PUT", "/recipes/#{recipe.id}", {revision: 0, document: recipe.document, words: "x"})).to eq(403) }
    expect(recipe.reload.revision).to eq(0)
  end

  it "is not got round by letters that are escaped, other methods or a slash more" do
    account("administer")
    as(account("look")) do |session|
      ["/%70eople", "/people%2F", "/people/", "//people"].each { |path| expect(ask(session, "GET", path)).not_to eq(200), path }
      expect(ask(session, "GET", "/%70eople")).to eq(403)
      expect(ask(session, "HEAD", "/people")).to eq(403)
    end
  end

  it "asks nobody on one's own machine, and nobody else in where there is no account" do
    call(:get, "/here")
    expect(json).to eq("asked" => false, "person" => nil)
    call(:get, "/projects")
    expect(last_response.status).to eq(200)
    allow(Server::Settings).to receive(:beyond?).and_return(true)
    call(:get, "/projects")
    expect([last_response.status, json["error"]]).to eq([401, "sign in first"])
  end
end

RSpec.describe Server::Person, type: :request do
  include Accounts

  it "signs in by a cookie that scripts cannot read, and out again; of one's own browsers or all" do
    person = account("administer")
    as(nil) do |session|
      expect(sign_in(session, person.name, "wrong-wrong-wrong")).to eq(401)
      expect(sign_in(session, person.name.upcase, Accounts::PASSWORD)).to eq(200)
      cookie = [*session.last_response.headers["set-cookie"]].join("\n")[/^mordant_person=.*/]
      expect(cookie).to match(/httponly/i).and match(/samesite=strict/i)
      expect(Server::SignIn.first.mark).not_to include(cookie[/=([^.]+)/, 1])
      other = as(person)
      expect(JSON.parse(session.get("/api/sign_ins").body).map { |one| one["here"] }).to contain_exactly(true, false)
      ask(session, "DELETE", "/sign_ins/#{JSON.parse(session.last_response.body).find { |one| !one["here"] }["id"]}")
      expect(ask(other, "GET", "/projects")).to eq(401)
      expect(ask(session, "GET", "/projects")).to eq(200)
      ask(session, "DELETE", "/sign_ins")
      expect(ask(session, "GET", "/projects")).to eq(401)
    end
  end

  it "ends what has been idle too long, a forged cookie, and all of somebody whose account ends" do
    person = account("look")
    session = as(person)
    expect(ask(session, "GET", "/projects")).to eq(200)
    Server::SignIn.update_all(seen_at: Time.now - Server::SignIn::IDLE - 1)
    expect(ask(session, "GET", "/projects")).to eq(401)
    forged = as(nil)
    forged.set_cookie("mordant_person=#{SecureRandom.urlsafe_base64(32)}")
    expect(ask(forged, "GET", "/projects")).to eq(401)
    again = as(person)
    account("administer")
    person.change("ended" => true)
    expect(ask(again, "GET", "/projects")).to eq(401)
    expect(sign_in(as(nil), person.name, Accounts::PASSWORD)).to eq(401)
  end

  it "makes them wait who try again and again, also all at once, and forgets it after the right one" do
    person = account("administer")
    session = as(nil)
    statuses = Array.new(7) { sign_in(session, person.name, "guess") }
    expect(statuses).to eq([401] * 5 + [429] * 2)
    expect(session.last_response.headers["retry-after"].to_i).to be_between(1, Server::Try::FIRST_WAIT * 2)
    expect(sign_in(session, person.name, Accounts::PASSWORD)).to eq(429)
    Server::Try.update_all(again_at: Time.now - 1)
    expect(sign_in(session, person.name, Accounts::PASSWORD)).to eq(200)
    at_once = Array.new(12) do
      Thread.new do
        ActiveRecord::Base.connection_pool.with_connection { Server::Try.count({"name" => "one"}) && :taken }
      rescue Server::Try::TooMany
        :refused
      end
    end.map(&:value)
    expect(at_once.tally[:taken]).to eq(Server::Try::FREE["name"] + 1)
  end

  it "waits longer each time, up to a quarter of an hour, and is forgotten after an hour" do
    now = Time.utc(2026, 1, 1)
    waits = Array.new(16) do
      Server::Try.count({"name" => "one"}, now:)
      Server::Try.find_by(key: "name one").again_at.then { |again| [again - now, 0].max.tap { |wait| now += wait } }
    end
    expect(waits).to eq([0, 0, 0, 0, 2, 4, 8, 16, 32, 64, 128, 256, 512, 900, 900, 900])
    expect { Server::Try.count({"name" => "one"}, now: now - 10) }.to raise_error(Server::Try::TooMany, /wait 10 s/)
    Server::Try.count({"name" => "one"}, now: now + 3601)
    expect(Server::Try.find_by(key: "name one").count).to eq(1)
  end

  it "is made, changed and ended by an administrator, of whom one always is left" do
    call(:post, "/people", {name: "Ada Quill", role: "grade", password: "long enough"})
    expect([last_response.status, json["path"]]).to eq([422, "role"])
    call(:post, "/people", {name: "Ada Quill", role: "administer", password: "long enough"})
    expect([last_response.status, json]).to match([201, include("name" => "Ada Quill", "initials" => "AQ", "role" => "administer")])
    call(:get, "/projects")
    expect(last_response.status).to eq(401)
    session = as(described_class.first, "long enough")
    {{name: "ada quill", role: "look", password: "long enough"} => "name", {name: "B", role: "king", password: "long enough"} => "role", {name: "B", role: "look", password: "short"} => "password",
     {name: "B", role: "look", password: "é" * 40} => "password", {name: " ", role: "look", password: "long enough"} => "name", {name: "Ada\u202e Quill", role: "look", password: "long enough"} => "name"}.each do |body, field|
      expect([ask(session, "POST", "/people", body), JSON.parse(session.last_response.body)["path"]]).to eq([422, field])
    end
    expect(ask(session, "PATCH", "/people/#{described_class.first.id}", {role: "grade"})).to eq(422)
    expect(ask(session, "PATCH", "/people/#{described_class.first.id}", {ended: true})).to eq(422)
    expect(described_class.first).to have_attributes(role: "administer", ended: false)
    expect(ask(session, "PUT", "/own_password", {present: "long enough", password: "another password"})).to eq(200)
    expect(ask(session, "GET", "/people")).to eq(200)
    expect(described_class.known("Ada Quill", "another password")).to eq(described_class.first)
    expect(session.last_response.body).not_to include("secret")
  end

  it "takes no large body from who is not signed in" do
    account("administer")
    session = as(nil)
    expect(ask(session, "GET", "/projects")).to eq(401) # this process has heard of the account now
    expect(ask(session, "POST", "/luts", "x" * (Server::Guard::LARGEST_STRANGER + 1))).to eq(413)
  end
end
