# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe Server::Trouble, type: :request do
  # PostgreSQL itself says what it says of a full disk, for a table that cannot be written to.
  def fill_disk(table)
    ActiveRecord::Base.connection.execute(<<~SQL)
      CREATE FUNCTION no_room() RETURNS trigger LANGUAGE plpgsql AS $$
      BEGIN RAISE EXCEPTION 'could not extend file "base/16384/2601": No space left on device' USING ERRCODE = 'disk_full'; END $$;
      CREATE TRIGGER no_room BEFORE INSERT OR UPDATE ON #{table} FOR EACH STATEMENT EXECUTE FUNCTION no_room();
    SQL
  end

  def make_room = ActiveRecord::Base.connection.execute("DROP FUNCTION IF EXISTS no_room() CASCADE")

  after { make_room }

  it "says that the disk of the database is full, and goes on when there is room" do
    recipe = Studio.cut(@folder).loaded_shots.first.recipe
    fill_disk("recipes")
    change = {revision: 0, document: Studio.balance(exposure: 1.0), words: "x"}
    call(:put, "/recipes/#{recipe.id}", change)
    expect([last_response.status, json["error"]]).to match([503, /disk of the database is full.*make room/])
    make_room
    call(:put, "/recipes/#{recipe.id}", change)
    expect([last_response.status, recipe.reload.document["steps"].size]).to eq([200, 1])
  end

  it "says that the database does not answer, with the reason that is noted, and goes on when it does" do
    note = File.join(Server::Settings.var, described_class::NOTE)
    allow(Server::Project).to receive(:includes).and_raise(ActiveRecord::ConnectionNotEstablished)
    call(:get, "/projects")
    expect([last_response.status, json["error"]]).to match([503, /does not answer; it is being started again/])
    File.write(note, "the disk with the database is full; make room on it")
    call(:get, "/projects")
    expect(json["error"]).to eq("the disk with the database is full; make room on it")
    File.delete(note)
    RSpec::Mocks.space.reset_all
    ActiveRecord::Base.connection.select_value("SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE pid <> pg_backend_pid() AND datname = current_database()")
    call(:get, "/projects")
    expect(last_response.status).to eq(200)
  ensure
    FileUtils.rm_f(note)
  end

  it "has a worker wait until the database answers" do
    refusals = [ActiveRecord::ConnectionNotEstablished, ActiveRecord::ConnectionNotEstablished]
    allow(ActiveRecord::Base.connection_pool).to receive(:with_connection).and_wrap_original { |original, &block| refusals.empty? ? original.call(&block) : raise(refusals.pop) }
    allow(Server::Database).to receive(:sleep)
    expect { Server::Database.wait }.to output(/waiting for the database/).to_stderr
    expect(Server::Database).to have_received(:sleep).twice
  end
end
