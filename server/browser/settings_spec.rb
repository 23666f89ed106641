# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "Colour management of a project" do
  before do
    folder = File.join(MEDIA, "day two")
    FileUtils.mkdir_p(folder)
    FileUtils.cp(File.join(Server::ROOT, "demo/media/dunlin/D207/D207_1C.mov"), folder)
    @cube = File.join(VAR, "halved.cube")
    File.write(@cube, "LUT_3D_SIZE 2\n0 0 0\n0.5 0 0\n0 0.5 0\n0.5 0.5 0\n0 0 0.5\n0.5 0 0.5\n0 0.5 0.5\n0.5 0.5 0.5\n")
    File.write(@broken = File.join(VAR, "broken.cube"), "LUT_3D_SIZE 2\n0 0 0\n")
  end

  it "is set up along the chain, told where it disagrees, and seen on the Bench" do
    open_project
    assign_by_rule
    add_target
    look_on_the_bench
    bring_in_a_lut
    change_the_working_space
  end

  def open_project
    visit "/"
    fill_in "name of a new project", with: "Managed"
    click_button "New project"
    click_button "day two"
    click_button "Take in all beneath day two"
    expect(page).to have_css("[data-test=intake]", text: "1 taken in")
    fill_in "name of a new cut", with: "Reel"
    click_button "Make a cut of all"
    settle
    expect(page).to have_css("[role=option]", text: "no encoding")
  end

  def assign_by_rule
    click_link "Settings"
    expect(page).to have_css("[aria-label='hand-overs']", text: /D207_1C\.mov.*no encoding is assigned/m)
    click_button "+ rule"
    fill_in "pattern of rule 1", with: "dun*\t"
    find("button[aria-label='encoding of rule 1']").click
    find("[role=option]", exact_text: "S-Log3 · S-Gamut3.Cine").click
    expect(page).to have_css("tr", text: /S-Log3 · S-Gamut3\.Cine\s*rule 1: camera dunlin/)
    expect(page).to have_css("[aria-label='hand-overs']", text: "everything agrees")
  end

  def add_target
    click_button "+ target"
    within("section[aria-label='Target 2']") do
      find("button[aria-label='encoding of the target']").click
      find("[role=option]", exact_text: "P3-D65 · gamma 2.6").click
    end
    expect(page).to have_css("[aria-label='hand-overs']", text: /Target 2.*the picture is converted for it/m)
  end

  def look_on_the_bench
    click_link "Bench"
    settle
    television = patch_mean
    press("v")
    settle
    expect(page).to have_button("view off, ACEScct codes")
    expect(patch_mean).not_to eq(television)
    press("v")
    settle
    expect(patch_mean).to eq(television)
    click_button "Television"
    find("[role=radio]", exact_text: "gamma 2.2").click
    settle
    expect(patch_mean.sum).to be < television.sum # less code for the same light
    find("[role=radio]", exact_text: "gamma 2.4").click
    settle
    expect(patch_mean).to eq(television)
  end

  def bring_in_a_lut
    visit page.current_path
    settle
    before = patch_mean
    click_button "+ step"
    find("[role=menuitem]", exact_text: "LUT").click
    attach_file "LUT file", @broken, make_visible: true
    expect(page).to have_text("broken.cube:2: expected 8 rows of three numbers")
    click_button "dismiss"
    attach_file "LUT file", @cube, make_visible: true
    expect(page).to have_button("file", text: "halved.cube")
    settle
    expect(patch_mean.sum).to be < before.sum / 2
    type_number("strength of LUT", "0")
    settle
    expect(patch_mean).to eq(before)
    click_button "take…"
    expect(page).to have_text(/17 nodes\s*mean 0\.0|17 nodes\s*mean \d/)
    expect(page).to have_text("Exactly what the steps do")
  end

  def change_the_working_space
    visit page.current_path
    type_number("strength of LUT", "100") if page.has_css?("[aria-label='strength of LUT']", wait: 2)
    settle
    click_link "Settings"
    find("[role=radio]", text: "ACEScg").click
    expect(page).to have_text("1 shot is graded. With another working space their numbers stay")
    click_button "Change it"
    expect(page).to have_css("[role=radio][aria-checked=true]", text: "ACEScg")
  end
end
