# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "The Board" do
  before do
    folder = File.join(MEDIA, "day eleven")
    FileUtils.mkdir_p(folder)
    FileUtils.cp(File.join(Server::ROOT, "demo/media/heron/H014/H014_1A.mov"), folder)
    project = Server::Project.create!(name: "Many #{SecureRandom.hex(3)}", width: 960, height: 540)
    clip = Server::Intake::Taking.new(project, Server::MediaRoot.find_by!(path: File.realpath(MEDIA))).call("day eleven/H014_1A.mov")
    @cut = Server::Cut.create_named!(project, "Long")
    rows = Array.new(2000) { |at| {cut_id: @cut.id, clip_id: clip.id, name: format("s%04d", at), scene: "Scene #{at / 50}", position: at, source_in: at % 40, record_in: at * 4, length: 4, dissolve: 0} }
    ids = Server::Shot.insert_all!(rows).rows.flatten
    Server::Recipe.insert_all!(ids.map { |id| {shot_id: id, name: Server::Recipe::FIRST, document: Mordant::Grade::Recipe::EMPTY_DOCUMENT} })
    visit "/projects/#{project.id}/cuts/#{@cut.id}/board"
    expect(page).to have_css("[data-test=count]", text: "2000 shots")
  end

  it "shows a cut of two thousand shots, a screenful at a time, and flags what is picked of it" do
    expect(all("[data-shot]").size).to be < 80
    press(:End)
    expect(page).to have_css("[aria-label='shot s1999'][aria-current=true]")
    expect(all("[data-shot]").size).to be < 80
    press(:Home)
    find("[aria-label='shot s0001']").click
    find("[aria-label='shot s0004']").click(:shift)
    expect(page).to have_css("[data-test=chosen]", text: "4 picked")
    fill_in "note of the flag", with: "too cold"
    find("button[aria-label='flag woad']").click
    expect(page).to have_css("svg[aria-label='flag woad']", count: 4)
    expect(@cut.shots.where(flag: "woad", note: "too cold").pluck(:name)).to match_array(%w[s0001 s0002 s0003 s0004])
    fill_in "search shots", with: "s199"
    expect(page).to have_text("10 of 2000")
    fill_in "search shots", with: ""
    find("[aria-label='shot s0001']").click
    press([:control, "z"])
    expect(page).to have_no_css("svg[aria-label='flag woad']")
    press(:Enter)
    expect(page).to have_css("canvas[aria-label='picture of shot s0001']")
  end
end
