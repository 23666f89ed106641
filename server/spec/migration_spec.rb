# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "A production made before cuts could be mended" do
  around { |example| Dir.mktmpdir { |folder| example.run if (@folder = File.realpath(folder)) } }

  before { ActiveRecord::Migration.verbose = false }

  after { migrate(:up) unless Server::Cut.column_names.include?("edition") }

  # What they have planned for tables as they were does not fit these any more.
  after(:all) { ActiveRecord::Base.connection_pool.disconnect! }

  def migrate(way)
    require File.join(Server::ROOT, "server/migrations/017_make_cuts") unless defined?(MakeCuts)
    MakeCuts.new.migrate(way)
    [Server::Cut, Server::Shot, Server::Clip, Server::Order, Server::Revision].each(&:reset_column_information)
  end

  def pictures(cut)
    screen = Server::Screens.of(cut.project, nil)
    (0...14).map { |frame| Server::Pictures::Desk.current.picture(Server::Pictures::Wish.new(cut:, frame:, screen:)).last.rgb.to_binary }
  end

  it "opens with the same frames, and its clips stay stretched" do
    cut = Studio.cut(@folder)
    cut.project.update!(width: 64, height: 48)
    keys = [[0, 0.0], [7, 1.4]].map { |frame, stops| {"frame" => frame, "parameters" => {"exposure" => stops}} }
    cut.shots.each { |shot| shot.recipe.accept(revision: 0, words: "x", document: {"steps" => [{"id" => "a", "kind" => "balance", "parameters" => {}, "keys" => keys}]}) }
    Server::Clip.update_all(fit: "stretch")
    before = pictures(Server::Cut.find(cut.id))
    migrate(:down)
    migrate(:up)
    after = Server::Cut.find(cut.id)
    expect(pictures(after)).to eq(before)
    expect(after.shots.map { |shot| [shot.speed, shot.clock, shot.wipe, shot.clip.fit] }).to eq([[1.0, 0, nil, "stretch"]] * 2)
    expect(Server::Change.undo(after.project.reload).first.words).to eq("x")
  end

  it "opens with the same frames where it was made before there were renditions" do
    require File.join(Server::ROOT, "server/migrations/022_make_renditions") unless defined?(MakeRenditions)
    cut = Studio.cut(@folder)
    cut.shots.first.recipe.accept(revision: 0, words: "x", document: Studio.balance(exposure: 1.0))
    before = pictures(Server::Cut.find(cut.id))
    %i[down up].each { |way| MakeRenditions.new.migrate(way) }
    Server::Recipe.reset_column_information
    expect(pictures(Server::Cut.find(cut.id))).to eq(before)
    expect(Server::Change.undo(cut.project.reload).first.words).to eq("x")
  end

  it "opens with the same frames and history where it was made before there were people" do
    require File.join(Server::ROOT, "server/migrations/024_let_people_in") unless defined?(LetPeopleIn)
    cut = Studio.cut(@folder)
    cut.shots.first.recipe.accept(revision: 0, words: "x", document: Studio.balance(exposure: 1.0))
    before = pictures(Server::Cut.find(cut.id))
    kinds = [Server::Change, Server::Project, Server::Recipe, Server::Person, Server::Note, Server::Review, Server::Presence, Server::SignIn, Server::Try]
    %i[down up].each { |way| LetPeopleIn.new.migrate(way) }
    kinds.each(&:reset_column_information)
    project = cut.project.reload
    expect(pictures(Server::Cut.find(cut.id))).to eq(before)
    expect([project.turn, Server::Person.asked?, Server::Change.line(project).map(&:words)]).to eq([0, false, ["x"]])
    person = Server::Person.made("name" => "Ida", "role" => "administer", "password" => "ferry at low tide")
    expect(Server::OwnHistory.new(project, person).undo.first.words).to eq("x") # what was done before is everybody's
  ensure
    Server::Person.forget
  end
end
