# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "Assembly" do
  before do
    @folder = File.join(MEDIA, "day twelve")
    FileUtils.mkdir_p(@folder)
    @project = Server::Project.create!(name: "Ferry #{SecureRandom.hex(3)}", width: 480, height: 270)
  end

  # Files of the demo, as somebody has taken them in.
  def take_in(*patterns)
    taking = Server::Intake::Taking.new(@project, Server::MediaRoot.find_by!(path: File.realpath(MEDIA)))
    Dir[*patterns.map { |pattern| File.join(Server::ROOT, "demo/media/**", pattern) }].sort.each do |file|
      FileUtils.cp(file, @folder)
      clip = taking.call("day twelve/#{File.basename(file)}")
      clip.update!(encoding: "logc3-ei800-wg3", encoding_reason: "assigned by hand") unless clip.encoding
    end
  end

  def bring(name) = find("input[type=file][aria-label='cut list']", visible: :all).attach_file(File.join(Server::ROOT, "demo", name))

  def cut = Server::Cut.where(project: @project).last

  def names = cut.shots.map(&:name)

  def exposures = Server::Cut.find(cut.id).shots.to_h { |shot| [shot.name, shot.recipe.document["steps"].dig(0, "parameters", "exposure")] }.compact

  def grade(name, stops)
    find("[data-row]", text: /\A\d+\s*#{name}/).click
    press(:Enter)
    settle
    press("g")
    type_number("exposure", stops)
    expect(page).to have_css("[data-test=saved]", text: "saved ")
    settle
    click_link "Assembly"
    find("[data-strip]", match: :first)
  end

  # Pulls an end of a shot in the strip by so many frames.
  def pull(id, side, frames, *keys)
    box, scale = page.evaluate_script("(() => { const r = document.querySelector(`[data-strip='#{id}'] [data-end=#{side}]`).getBoundingClientRect(); const s = document.querySelector(`[data-strip='#{id}']`).getBoundingClientRect(); return [[r.x + r.width / 2, r.y + 30], s.width] })()").then { |at, width| [at, width / Server::Shot.find(id).length] }
    mouse = page.driver.browser.mouse
    mouse.move(x: box[0], y: box[1])
    mouse.down(modifiers: page.driver.browser.keyboard.modifiers(keys))
    (1..6).each { |step| mouse.move(x: box[0] + frames * scale * step / 6, y: box[1]) and sleep(0.03) }
    yield if block_given?
    mouse.up
  end

  it "conforms a list, grades two shots, takes a new version, and finds the grades where they belong" do
    take_in("*_{1,2}?.mov", "*_3[ACD].mov")
    visit "/projects/#{@project.id}/assembly"
    expect(page).to have_text("This project has no cut yet")
    bring("salt_lantern.edl")
    expect(page).to have_css("[data-test=linked]", text: "11 of 12 linked: 11 by reel and timecode")
    expect(page).to have_text("10 · H016_3B.mov")
    fill_in "name of the new cut", with: "Cut 1"
    click_button "Make the cut"
    expect(page).to have_css("[data-row]", count: 12)
    expect(page).to have_text("Links · 1 missing")
    grade("H015_2B|2B", "1")
    grade("K033_2D|2D", "-1")
    expect(exposures).to eq("2B" => 1.0, "2D" => -1.0)

    # the missing footage arrives
    FileUtils.cp(File.join(Server::ROOT, "demo/media/heron/H016/H016_3B.mov"), @folder)
    intake = Server::Intake.create!(project: @project, media_root: Server::MediaRoot.find_by!(path: File.realpath(MEDIA)), path: "day twelve/H016_3B.mov")
    Server::IntakeJob.enqueue(intake.id)
    expect(page).to have_no_text("missing", wait: 60)

    bring("salt_lantern_2.edl")
    click_button "Compare with Cut 1"
    expect(page).to have_css("[data-test=counts]", text: /1 new\s*1 changed\s*1 moved\s*1 gone\s*9 unchanged/)
    expect(all("[data-difference]").map { |one| one["data-difference"] }).to eq(%w[trimmed new moved gone])
    click_button "Lay it over Cut 1"
    expect(page).to have_text("one undo takes it back")
    expect(names.values_at(2, 5, 6)).to eq(%w[1D 2B 2A])
    expect(exposures).to eq("2B" => 1.0)
    find("[role=tab]", text: "Attic · 1").click
    expect(page).to have_css("[data-attic]", text: "2D")
    find("[data-row]", text: /\A9\s*3A/).click
    click_button "put it in before 3A"
    expect(page).to have_css("[data-row]", count: 13)
    expect(exposures).to eq("2B" => 1.0, "2D" => -1.0)
    2.times do
      page.driver.browser.keyboard.type([:control, "z"])
      sleep 0.5
    end
    expect(page).to have_css("[data-row]", count: 12)
    expect(names.values_at(1, 4, 5, 7)).to eq(%w[1B 2A 2B 2D])
  end

  it "mends a cut by pointer, by number and by key, and lies a programme under it" do
    take_in("*_1?.mov", "salt_lantern.mov")
    text = File.read(File.join(Server::ROOT, "demo/salt_lantern.edl")).split(/^005 /).first
    made = Server::Conforming.new(@project, {"list" => {"name" => "reel one.edl", "text" => text}}).cut("Cut 1")
    shots = made.shots.to_a
    visit "/projects/#{@project.id}/cuts/#{made.id}/assembly"
    find("[data-strip='#{shots[1].id}']").click
    pull(shots[1].id, "tail", 5) { expect(find("[data-test=pulled]").text).to eq("end +5") }
    expect(page).to have_field("length", with: "49")
    pull(shots[1].id, "head", 3, :shift) { expect(find("[data-test=pulled]").text).to eq("edit +3") }
    expect(page).to have_field("length", with: "46")
    expect(Server::Shot.find(shots[0].id).length).to eq(51)
    fill_in "source in", with: "9"
    press(:Enter)
    find("[data-row='#{shots[2].id}']").click
    press(:right, :right)
    press("w")
    press(:left)
    expect(page).to have_field("length", with: "37")
    6.times { press("d") }
    press("s")
    expect(page).to have_css("[data-row]", count: 5)
    expect(Server::Cut.find(made.id).shots.first(5).map { |shot| [shot.name, shot.source_in, shot.length] }).to eq([["1A", 6, 51], ["1B", 9, 46], ["1C", 10, 37], ["1D", 6, 5], ["1D.2", 11, 31]])
    7.times do
      press([:control, "z"])
      sleep 0.4
    end
    expect(page).to have_css("[data-row]", count: 4)
    expect(page).to have_css("button[aria-label=undo]:disabled")

    find("[role=tab]", text: "Programme").click
    click_button "programme under the cut"
    find("[role=option]", text: "salt_lantern.mov").click
    find("[data-row='#{shots[2].id}']").click
    press([:shift, "d"], [:shift, "d"], [:shift, "d"], [:shift, "d"])
    click_button "Find where they differ"
    expect(page).to have_css("[data-test=disagreement]", text: "the programme shows frames 4 earlier", wait: 90)
    expect(page).to have_css("[data-test=disagreement]", count: 1)
    expect(page).to have_text("The programme is 358 frames longer")
  end
end
