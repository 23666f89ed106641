# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "Pairing" do
  before do
    folder = File.join(MEDIA, "day eight")
    FileUtils.mkdir_p(folder)
    %w[heron/H014/H014_1A.mov dunlin/D207/D207_1C.mov dunlin/D207/D207_1D.mov].each { |file| FileUtils.cp(File.join(Server::ROOT, "demo/media", file), folder) }
    project = Server::Project.create!(name: "Pairs #{SecureRandom.hex(3)}", width: 480, height: 270,
      input_rules: [{"field" => "camera", "pattern" => "dunlin", "encoding" => "s-log3-s-gamut3.cine"}])
    taking = Server::Intake::Taking.new(project, Server::MediaRoot.find_by!(path: File.realpath(MEDIA)))
    clips = %w[H014_1A D207_1C D207_1D].map { |name| taking.call("day eight/#{name}.mov") }
    @cut = Server::Cut.assemble(project:, name: "Day", clips:)
    Server::Shot.where(cut: @cut).update_all(scene: "Jetty")
    visit "/projects/#{project.id}/cuts/#{@cut.id}/bench"
    settle
  end

  def steps_of(name) = @cut.shots.find_by!(name:).recipe.reload.document["steps"].map { |step| [step["name"], step["parameters"]["exposure"]] }

  def match_next(name)
    expect(page).to have_css("[role=option][aria-selected=true]", text: name)
    press("y")
    expect(page).to have_css("[data-test=alike]", text: /→ \d+ %/)
    before, after = find("[data-test=alike]").text.scan(/\d+/).map(&:to_i)
    expect(after).to be > before
    press("k")
    expect(page).to have_no_css("[data-test=alike]")
  end

  it "matches a family to its hero, a keystroke each, and undoes it" do
    press("g")
    type_number("saturation", "1.2")
    click_button "no family"
    click_button "of the scene, 3 shots"
    expect(page).to have_css("section[aria-label='ground of family Jetty']")
    press(:Escape)
    click_link "Pairing"
    expect(page).to have_css("[data-settled=true]", count: 2)
    match_next("1C")
    press("e")
    match_next("1D")
    expect(page).to have_css("[data-test=saved]", text: /\Asaved/)
    expect(steps_of("1C")).to match([["Match 1A", be_within(0.2).of(1.58)], ["Balance", 0.0]])
    expect(steps_of("1D")).to match([["Match 1A", be_within(0.2).of(-0.19)], ["Balance", 0.0]])
    press([:control, "z"])
    expect(page).to have_css("button[aria-label=redo]:not([disabled])")
    expect(steps_of("1D")).to be_empty
  end
end
