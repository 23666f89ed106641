# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "Hands on the Bench" do
  before do
    folder = File.join(MEDIA, "day ten")
    FileUtils.mkdir_p(folder)
    %w[heron/H014/H014_1A.mov heron/H014/H014_1B.mov dunlin/D207/D207_1C.mov].each { |file| FileUtils.cp(File.join(Server::ROOT, "demo/media", file), folder) }
    project = Server::Project.create!(name: "Hands #{SecureRandom.hex(3)}", width: 1920, height: 1080)
    taking = Server::Intake::Taking.new(project, Server::MediaRoot.find_by!(path: File.realpath(MEDIA)))
    clips = %w[H014_1A H014_1B D207_1C].map { |name| taking.call("day ten/#{name}.mov") }
    @cut = Server::Cut.assemble(project:, name: "Day", clips:)
    visit "/projects/#{project.id}/cuts/#{@cut.id}/bench"
    settle
  end

  def steps_of(name) = @cut.shots.find_by!(name:).recipe.reload.document["steps"]

  def rate_shown? = page.has_css?("[data-test=rate]")

  it "asks before a recipe is put, never doubles it where it came from, and takes all back at once" do
    press("g")
    type_number("exposure", "1")
    settle
    press([:control, "v"])
    press([:control, :shift, "c"])
    press([:control, "v"])
    expect(page).to have_text("This was copied from 1A")
    find("[role=option]", text: "1B").click(:control)
    find("[role=option]", text: "1C").click(:control)
    press([:control, "v"])
    expect(page).to have_css("[aria-label='put a recipe on shots']", text: "recipe of 1A on 1B, 1C")
    press(:Escape)
    expect(page).to have_no_css("[aria-label='put a recipe on shots']")
    expect(%w[1B 1C].flat_map { |name| steps_of(name) }).to be_empty
    2.times do |round|
      press([:control, "v"])
      click_button "add after them"
      expect(page).to have_text("recipe of 1A after the steps of 1B, 1C")
      expect(%w[1A 1B 1C].map { |name| steps_of(name).size }).to eq([1, round + 1, round + 1])
      find("[aria-label=dismiss]", match: :first).click while page.has_css?("[aria-label=dismiss]", wait: 0)
    end
    press([:control, "v"])
    press(:Enter)
    expect(page).to have_text("recipe of 1A in place of the steps of 1B, 1C")
    expect(%w[1A 1B 1C].map { |name| steps_of(name).size }).to eq([1, 1, 1])
    press([:control, "z"])
    expect(page).to have_css("button[aria-label=redo]:enabled")
    expect(%w[1B 1C].map { |name| steps_of(name).size }).to eq([2, 2])
  end

  it "plays with the space bar whatever has the focus, and closes with Esc what is on top alone" do
    find("button[title^='H: workers']")
    page.execute_script("document.querySelector(\"button[title^='H: workers']\").focus()")
    press(:Space)
    expect(rate_shown?).to be(true)
    expect(page).to have_no_text("rendering")
    press(:Space)
    expect(page).to have_no_css("[data-test=rate]")
    settle
    press("g")
    press("n")
    expect(page).to have_text("click or drag over something that is grey")
    press("b") # nothing to borrow yet
    press(:Escape)
    expect(page).to have_no_text("click or drag over something that is grey")
  end

  it "goes to a timecode that is typed, compares with a shot in one act, and shows the master's own pixels" do
    find("[data-test=clock-rec]").click
    press("01:00:03:00", :Enter)
    expect(page).to have_css("[data-test=clock-rec]", text: "01:00:03:00")
    expect(page).to have_css("[aria-selected=true]", text: "1B")
    expect(find("[data-test=clock-src]").text).to eq("09:31:41:00") # twelve frames into its file, which begins at 09:31:40:12
    find("[data-test=clock-rec]").click
    press("09:00:00:00", :Enter)
    expect(page).to have_text("expected 01:00:00:00 to")
    find("[role=option]", text: "1A").click(:alt)
    expect(page).to have_button(text: /with 1A chosen shot/)
    expect(page).to have_css("[aria-selected=true]", text: "1B")
    settle
    press("f")
    expect(page).to have_css("[data-test=enlarged]", text: "enlarged") # beside another shot
    press("y")
    settle
    expect(page).to have_css("[data-real='1920x1080']")
    expect(page).to have_no_css("[data-test=enlarged]")
  end

  it "adds steps and types a number by name, draws a point of a curve in one go, and types a limit of the bands with the pointer" do
    by_name("add balance")
    by_name("exposure")
    press("0.2", :Enter)
    expect(page).to have_css("[role=spinbutton][aria-label=exposure][aria-valuenow='0.2']")
    by_name("add curves")
    settle
    graph = "svg[aria-label='curve luma']"
    box = page.evaluate_script("(() => { const r = document.querySelector(arguments[0]).getBoundingClientRect(); return [r.x, r.y, r.width, r.height] })()", graph)
    mouse = page.driver.browser.mouse
    mouse.move(x: box[0] + box[2] * 0.5, y: box[1] + box[3] * 0.5)
    mouse.down
    (1..6).each { |n| mouse.move(x: box[0] + box[2] * 0.5, y: box[1] + box[3] * 0.5 - 5 * n) && sleep(0.03) }
    mouse.up
    settle
    points = steps_of("1A").last["parameters"]["luma"]
    expect(points.size).to eq(3)
    expect(points[1][1]).to be > points[1][0] + 0.1
    press("j")
    expect(page).to have_css("[role=group][aria-label='colour bands']")
    find("[aria-label='colour bands'] [role=slider] button", match: :first).click
    page.driver.browser.keyboard.type([:control, "a"])
    press("-7", :Enter)
    expect(page).to have_css("[aria-label='colour bands'] [role=slider]", text: "-7.0 st")
    find("[aria-label='colour bands'] button[aria-label^='band 1']").click
    expect(page).to have_css("input[aria-label^='opacity of band 1']")
  end
end
