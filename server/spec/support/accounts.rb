# frozen_string_literal: true

BCrypt::Engine.cost = BCrypt::Engine::MIN_COST # how dear it is elsewhere is no matter here

# People with accounts, and their browsers.
module Accounts
  PASSWORD = "ferry at low tide"
  REVIEWS = ["GET /reviews/1", "GET /reviews/1/kept", "GET /reviews/1/pictures/1", "POST /reviews/1/notes"].freeze

  # Every route there is, and who may use it; written out so that a new one has to be thought about.
  EVERY_ROUTE = {
    nil => ["GET /here", "POST /sign_in", "POST /sign_out", *REVIEWS],
    "look" => [
      "GET /bands", "GET /calibrations/1", "GET /calibrations/1/correction.cube", "GET /calibrations/1/report.json", "GET /catalogue", "GET /cuts/1", "GET /cuts/1/attic", "GET /cuts/1/cleaned",
      "GET /cuts/1/corrections.json", "GET /cuts/1/frame", "GET /cuts/1/list.edl", "GET /cuts/1/notes", "GET /cuts/1/notes.txt", "GET /cuts/1/paths", "GET /cuts/1/playing", "GET /cuts/1/renditions", "GET /cuts/1/renditions.json", "GET /cuts/1/reviews",
      "GET /errands/1", "GET /events", "GET /luts", "GET /presets", "GET /projects", "GET /projects/1", "GET /projects/1/clips", "GET /projects/1/clips/1", "GET /projects/1/clips/1/picture", "GET /projects/1/history", "GET /projects/1/settings", "GET /projects/1/stills",
      "GET /recipes/1", "GET /screens", "GET /screens/devices", "GET /shots/1/correction", "GET /shots/1/correction.cdl", "GET /shots/1/edge.png", "GET /shots/1/small.png",
      "GET /sign_ins", "DELETE /sign_ins", "DELETE /sign_ins/1", "GET /swatches", "GET /swatches/1/file", "GET /swatches/1/picture.png",
      "POST /cuts/1/cleaned", "POST /cuts/1/finished", "POST /cuts/1/kept", "POST /cuts/1/ladder", "POST /cuts/1/ladders", "POST /cuts/1/notes", "POST /cuts/1/picture", "POST /cuts/1/point", "POST /cuts/1/window",
      "PUT /own_password", "PUT /presence"
    ],
    "grade" => [
      "DELETE /bands", "PUT /bands", "POST /calibrations/1/cancel", "POST /calibrations/1/go-on", "POST /calibrations/1/load", "POST /calibrations/1/pause", "PATCH /cuts/1", "POST /cuts/1/assembly", "POST /cuts/1/changes", "POST /cuts/1/comparisons",
      "POST /cuts/1/corrections", "POST /cuts/1/families", "POST /cuts/1/flags", "POST /cuts/1/levels", "POST /cuts/1/measurements", "POST /cuts/1/paste", "POST /cuts/1/recut", "PUT /cuts/1/recut", "POST /cuts/1/renders", "POST /cuts/1/renditions",
      "POST /cuts/1/renditions/paste", "POST /cuts/1/reviews", "POST /cuts/1/stills", "POST /cuts/1/tracks", "POST /cuts/1/washes", "POST /errands/1/cancel", "PATCH /families/1", "POST /families/1/members", "POST /luts", "GET /media", "GET /media/1", "GET /shots/1/bake", "GET /shots/1/look.cube", "GET /shots/1/on_set.tar",
      "PATCH /notes/1", "POST /projects", "DELETE /projects/1/clips", "PATCH /projects/1/clips", "POST /projects/1/cuts", "POST /projects/1/history", "POST /projects/1/intakes", "POST /projects/1/lists", "POST /projects/1/redo", "PUT /projects/1/settings",
      "PUT /projects/1/slates/1", "POST /projects/1/stills", "POST /projects/1/undo", "PUT /recipes/1", "POST /renders/1/cancel", "DELETE /review_links/1", "POST /screens", "DELETE /screens/1", "PUT /screens/1", "POST /screens/1/calibrations", "POST /screens/1/unload",
      "PATCH /shots/1", "POST /shots/1/auto", "POST /shots/1/corrections", "PATCH /shots/1/family", "POST /shots/1/key", "POST /shots/1/match", "POST /shots/1/neutral", "POST /shots/1/noise", "PUT /shots/1/poster", "POST /shots/1/reading",
      "POST /shots/1/swatches", "POST /shots/1/versions", "DELETE /stills/1", "DELETE /swatches/1", "PATCH /swatches/1", "POST /swatches/import", "PATCH /washes/1"
    ],
    "deliver" => [
      "GET /cuts/1/orders", "POST /cuts/1/orders", "POST /cuts/1/orders/look", "POST /cuts/1/orders/preview", "POST /cuts/1/export", "POST /cuts/1/packages", "GET /errands/1/file", "GET /orders/1/list.edl", "PATCH /orders/1", "POST /outputs/1/cancel",
      "GET /outputs/1/file", "GET /outputs/1/report", "POST /outputs/1/retry", "DELETE /presets/1", "PUT /projects/1/presets"
    ],
    "administer" => ["GET /people", "POST /people", "PATCH /people/1", "DELETE /projects/1"]
  }.freeze

  FORMATS = {"list" => ".edl", "look" => ".cube", "correction" => ".cdl", "corrections" => ".json", "notes" => ".txt"}.freeze # one of each address that has several

  def self.included(group) = group.after { Server::Person.forget }

  # @return [Server::Person]
  def account(role, name = "#{role.capitalize} #{Server::Person.count}")
    Server::Person.made("name" => "First", "role" => "administer", "password" => PASSWORD) if role != "administer" && Server::Person.none?
    Server::Person.made("name" => name, "role" => role, "password" => PASSWORD)
  end

  # A browser, signed in.
  #
  # @param person [Server::Person, nil] nil: nobody
  # @return [Rack::Test::Session, Object] what the block gives, where there is one
  def as(person, password = PASSWORD)
    session = Rack::Test::Session.new(Server::App)
    session.header("Host", "127.0.0.1")
    session.get("/api/here")
    sign_in(session, person.name, password) if person
    block_given? ? yield(session) : session
  end

  # @return [Integer] status
  def sign_in(session, name, password) = ask(session, "POST", "/sign_in", {name:, password:})

  # @return [Integer] status
  def ask(session, method, path, body = nil)
    session.header("X-Mordant-Token", session.cookie_jar["mordant_token"])
    session.custom_request(method, "/api#{path}", {}, {:input => body.is_a?(String) ? body : body&.to_json, "CONTENT_TYPE" => "application/json"})
    session.last_response.status
  end
end
