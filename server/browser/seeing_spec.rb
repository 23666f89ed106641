# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "Seeing" do
  before do
    folder = File.join(MEDIA, "day seven")
    FileUtils.mkdir_p(folder)
    FileUtils.cp(File.join(Server::ROOT, "demo/media/heron/H014/H014_1B.mov"), folder)
    project = Server::Project.create!(name: "Seen #{SecureRandom.hex(3)}", width: 480, height: 270)
    clip = Server::Intake::Taking.new(project, Server::MediaRoot.find_by!(path: File.realpath(MEDIA))).call("day seven/H014_1B.mov")
    @cut = Server::Cut.assemble(project:, name: "Day", clips: [clip])
    visit "/projects/#{project.id}/cuts/#{@cut.id}/bench"
    settle
  end

  def instrument(slot, kind)
    find("button[aria-label^='instrument #{slot}']").click
    find("[role=menuitem]", text: kind, exact_text: true).click
    settle
  end

  # Drags within the middle of an element, with Shift or without.
  def drag_within(selector, from, to, shift: false)
    x, y, width, height = page.evaluate_script("(() => { const r = document.querySelector(arguments[0]).getBoundingClientRect(); return [r.x, r.y, r.width, r.height] })()", selector)
    mouse = page.driver.browser.mouse
    place = ->(share) { {x: x + share[0] * width, y: y + share[1] * height} }
    mouse.move(**place[from])
    mouse.down
    mouse.move(**place[[(from[0] + to[0]) / 2, (from[1] + to[1]) / 2]])
    mouse.move(**place[to])
    mouse.up(modifiers: shift ? 8 : 0)
    settle
  end

  it "chooses instruments, restricts them to a part, and lights what makes up a part of them" do
    instrument(1, "Waveform, luma")
    instrument(2, "Histogram")
    expect(page).to have_css("figure[aria-label='Waveform, luma']").and have_css("figure[aria-label=Histogram]")
    drag_within("canvas[aria-label^='picture of shot']", [0.3, 0.3], [0.5, 0.6], shift: true)
    expect(page).to have_css("[data-test=region]").and have_text("region · final")
    before = patch_mean
    drag_within("figure[aria-label='Waveform, luma'] canvas", [0.1, 0.9], [0.9, 0.6])
    expect(page).to have_text("what makes up a part of the waveform")
    expect(patch_mean).not_to eq(before)
    visit page.current_path # what was chosen is there again
    settle
    expect(page).to have_css("figure[aria-label=Histogram]")
    click_button "instruments…"
    click_button "reset all"
    expect(page).to have_css("figure[aria-label=Parade]").and have_css("figure[aria-label=Vectorscope]")
  end

  it "paints bands, tells the pixel under the pointer, and shows two pictures on one instrument" do
    plain = patch_mean
    press("j")
    expect(page).to have_css("[aria-label='colour bands']", text: "Key and fill")
    settle
    expect(patch_mean).not_to eq(plain)
    press("j")
    settle
    expect(patch_mean).to eq(plain)
    page.execute_script("window.dispatchEvent(new KeyboardEvent('keydown', { key: 'i' }))")
    drag_within("canvas[aria-label^='picture of shot']", [0.5, 0.5], [0.52, 0.52])
    expect(page).to have_css("[data-test=loupe]", text: /source, 10-bit\s+\d+  \d+  \d+/)
    page.execute_script("window.dispatchEvent(new KeyboardEvent('keyup', { key: 'i' }))")
    click_button "instruments…"
    find("[role=radiogroup][aria-label='reference'] [role=radio]", text: "source").click
    expect(page).to have_css("figure[aria-label=Parade]", text: /graded\s+source/)
  end

  it "renders a marked range ahead, plays it, and shows it clean in a window of its own" do
    press(",")
    5.times { press("d") }
    press(".")
    expect(page).to have_text("loop 6 frames")
    press("h")
    expect(page).to have_css("[data-test=kept-span]")
    press(:Space)
    expect(page).to have_css("[data-test=rate]", text: /(1[5-9]|2[0-4]) of 24/)
    expect(page).to have_css("button", text: "stop")
    press(:Space)
    settle
    clean = window_opened_by { press("+") }
    within_window(clean) do
      expect(page).to have_css("canvas[aria-label='clean picture']")
      settle
      expect(page).to have_no_css("nav")
    end
    clean.close
  end
end
