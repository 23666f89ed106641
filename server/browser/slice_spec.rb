# frozen_string_literal: true

require_relative "spec_helper"
require "vips"

RSpec.describe "From a folder to a delivered shot" do
  let(:footage) { File.join(Server::ROOT, "demo/media") }

  before do
    day = File.join(MEDIA, "day one/cards")
    FileUtils.mkdir_p(day)
    ["heron/H014/H014_1B.mov", "dunlin/D207/D207_1C.mov"].each { |file| take_beginning(File.join(footage, file), day) }
    whole = File.binread(File.join(footage, "heron/H014/H014_1A.mov"))
    File.binwrite(File.join(day, "broken.mov"), whole[0, whole.size / 2])
  end

  # Its first half second alone, with all it says of itself.
  def take_beginning(file, folder)
    made = File.join(folder, File.basename(file))
    Mordant::Media::Command.run(["ffmpeg", "-v", "error", "-i", file, "-map", "0:v", "-frames:v", "12", "-c:v", "libx264", "-preset", "veryfast", "-crf", "10",
      "-map_metadata", "0", "-movflags", "use_metadata_tags", made], path: made)
  end

  it "takes in, grades, keeps and delivers" do
    take_in
    make_cut
    grade
    still_graded_after_reload
    take_back_and_do_again
    deliver
    grade_a_part
  end

  def take_in
    visit "/"
    fill_in "name of a new project", with: "Trial run"
    click_button "New project"
    click_button "day one"
    click_button "Take in all beneath day one"
    expect(page).to have_css("[data-test=intake]", text: "2 taken in, 1 refused")
    expect(page).to have_css("[aria-label='refused files']", text: /broken\.mov.*does not finish|broken\.mov/)
    expect(page).to have_css("tr", text: /D207_1C\.mov.*not assigned/m)
    check "D207_1C.mov"
    click_button "Assign an encoding to 1"
    find("[role=option]", exact_text: "S-Log3 · S-Gamut3.Cine").click
    expect(page).to have_css("tr", text: /D207_1C\.mov.*assigned by hand/m)
    uncheck "D207_1C.mov"
  end

  def make_cut
    fill_in "name of a new cut", with: "Selects"
    click_button "Make a cut of all"
    expect(page).to have_css("[role=option][aria-selected=true]", text: "1B")
    expect(page).to have_css("[role=option]", count: 2)
    settle
  end

  def grade
    ungraded = patch_mean
    press("e")
    expect(page).to have_css("[role=option][aria-selected=true]", text: "1C")
    click_button "Begin with Balance"
    type_number("exposure", "1.5")
    drawn_live_as_settled("[aria-label='warmth, middle (gamma)']", dy: -14)
    drag("[role=spinbutton][aria-label=saturation]", dx: 40)
    settle
    expect(number("exposure")).to eq(1.5)
    expect(number("saturation")).to be > 1.05
    graded = patch_mean
    page.driver.browser.keyboard.down("w")
    expect(page).to have_text("as shot")
    settle
    source = patch_mean
    page.driver.browser.keyboard.up("w")
    expect(graded.sum).to be > source.sum + 60
    press("q")
    settle
    expect(patch_mean).to eq(ungraded)
    press("e")
    expect(page).to have_css("[data-test=saved]", text: /\Asaved/)
  end

  # What is drawn up a ladder under the hand, and the exact picture of the same move after, differ
  # by less than a step that can be seen.
  def drawn_live_as_settled(selector, dx: 0, dy: 0)
    settle
    drag(selector, dx:, dy:, held: true)
    settle
    live = live_picture { page.driver.browser.mouse.move(x: @at[0] + 2 * (dx <=> 0), y: @at[1] + 2 * (dy <=> 0)) }
    page.driver.browser.mouse.up
    settle
    off = live.zip(small_picture).map { |a, b| (a - b).abs }
    expect(off.sum / off.size.to_f).to be < 2.0
  end

  # With a matte of two contributors, one by its place and one by what the picture is.
  def grade_a_part
    click_link "Bench"
    settle
    click_button "+ step"
    find("[role=menuitem]", exact_text: "Balance").click
    click_button "acts on"
    click_button "+ ellipse"
    click_button "+ luminance"
    click_button "numbers"
    drawn_live_as_settled("[role=spinbutton][aria-label='soft below']", dx: 30)
    click_button "what it does"
    drawn_live_as_settled("[aria-label='light, middle (gamma)']", dy: -10)
  end

  def still_graded_after_reload
    settle
    before = [number("exposure"), number("saturation"), patch_mean]
    visit page.current_path
    expect(page).to have_css("[role=option][aria-selected=true]", text: "1C")
    settle
    expect([number("exposure"), number("saturation"), patch_mean]).to eq(before)
  end

  def take_back_and_do_again
    kept = number("saturation")
    find("body").send_keys([:control, "z"])
    expect(page).to have_css("[role=spinbutton][aria-label=saturation][aria-valuenow='1']")
    click_button "redo"
    expect(page).to have_css("[role=spinbutton][aria-label=saturation][aria-valuenow='#{kept}']")
  end

  def deliver
    click_link "Dispatch"
    expect(page).to have_css("[data-test=statement]", text: "tagged") # what comes late moves what is below it
    click_button "+ output"
    expect(page).to have_css("section[aria-label^=output]", count: 2)
    expect(page).to have_css("[data-test=refusal]", text: "another output has the name", count: 2)
    within(all("section[aria-label^=output]").last) do
      find("button[aria-label=format]").click
      find("[role=option]", text: "OpenEXR, half float").click
      find("button[aria-label=target]").click
      find("[role=option]", text: "ACES2065-1").click
    end
    expect(page).to have_css("[data-test=statement]", text: "ACES2065-1 · 960x540")
    click_button "shots by themselves"
    find("[aria-pressed]", text: "1C").click
    fill_in "name", with: "../{shot}"
    expect(page).to have_css("[role=alert]", text: "a path below the delivery folder")
    expect(page).to have_button("Order 2 outputs", disabled: true)
    fill_in "name", with: "{cut}/{shot}_{format}"
    expect(page).to have_no_css("[role=alert]")
    click_button "Order 2 outputs"
    expect(page).to have_css("[data-status=done]", count: 2, wait: 120)
    expect(page).to have_link("download", count: 2)
    expect(page).to have_link("checked", count: 2)
    compare_with_core
  end

  def compare_with_core
    folder = File.join(VAR, "delivery/Selects")
    review = File.join(folder, "1C_h264.mp4")
    facts = Mordant::Media::Probe.call(review)
    expect(facts).to have_attributes(width: 960, height: 540, frames: 12, codec: "h264", range: "legal", bit_depth: 10)
    number = 7
    shot = Server::Cut.find_by!(name: "Selects").shots.find_by!(name: "1C")
    codes = shot.clip.reader.frame(number, width: 960, height: 540)
    working = Mordant::Grade::Plan.new(recipe: shot.recipe.grade, source: shot.clip.encoding).run(codes)

    decoded = Mordant::Media::Reader.new(review, rate: facts.rate).frame(number, width: 960, height: 540).frame(encoding: "rec709-bt1886")
    wanted = Mordant::Grade::Output.for(Mordant::Grade::View::STANDARD).run(working)
    patch = ->(frame) { frame.rgb.reshape(3, 540, 960)[true, 30...46, 40...56].reshape(3, 256).mean(axis: 1) }
    expect((patch[decoded] - patch[wanted]).abs.max).to be < 1.5 / 255

    file = Dir.glob(File.join(folder, "1C_exr-half/*.exr")).sort.fetch(number)
    light = Mordant::Grade::Output.for(Mordant::Grade::View::MASTER).run(working)
    found = Vips::Image.new_from_file(file).getpoint(48, 38).first(3)
    expect(found.zip(light.at(48, 38).to_a)).to all(satisfy { |a, b| (a - b).abs <= b.abs * 2.0**-11 + 1e-7 })
  end
end
