# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "Renditions" do
  before do
    @cut = open_bench("knot/K034/K034_3A.mov", name: "Dusk", encoding: "log3g10-wgrgb", length: 6)
    @cut.project.update!(targets: @cut.project.targets + Server::Demo::TARGETS)
  end

  def corrections = Server::Recipe.find_by(corrects_id: @cut.shots.first.id)&.document&.fetch("steps").to_a

  def parameters(id) = corrections.find { |step| step["id"] == id }&.fetch("parameters").to_h

  def settle_both = expect(page).to have_css("[data-settled=true]", count: 2)

  def canvas(label)
    page.evaluate_script("(() => { const copy = new OffscreenCanvas(64, 36).getContext('2d'); copy.drawImage(document.querySelector(\"canvas[aria-label='#{label}']\"), 0, 0, 64, 36); return copy.getImageData(0, 0, 64, 36).data.reduce((sum, x) => sum + x, 0) })()")
  end

  it "are measured, corrected from the smallest up, looked at, taken along as data and read back" do
    find("nav[aria-label=rooms] a", text: "Renditions").click
    expect(page).to have_css("[data-test=state]", text: "not measured")
    expect(page).to have_css("[data-test=waits]", text: "wait until this shot is measured")
    type_number("brightness", "10")
    until_stored("brightness of all") { parameters("all")["brightness"].to_f > 0.09 }
    click_button "Measure", exact: true
    expect(page).to have_css("[data-test=state]", text: "corrected", wait: 40)
    expect(find("[data-test=levels]").text).to match(/least [\d.]+ · mean [\d.]+ · greatest \d+/)
    settle_both

    hdr, small = canvas("HDR picture"), canvas("rendition")
    expect(page).to have_css("[role=radio][aria-checked=true]", text: "BT.709 100")
    drag("[role=spinbutton][aria-label='contrast']", dx: 60)
    until_stored("contrast of the smallest") { parameters("bt709-100")["contrast"].to_f > 1.05 }
    settle_both
    expect(canvas("HDR picture")).to eq(hdr)
    expect(canvas("rendition")).not_to eq(small)
    expect(page).to have_css("[role=radio]", text: /BT.709 100\s*corrected/)

    press("r")
    expect(page).to have_css("[role=radio][aria-checked=true]", text: "P3-D65 600")
    settle_both
    expect(page).to have_css("[role=radio]", text: /P3-D65 600\s*next/)
    find("[role=radio]", text: "−2 st").click
    expect(page).to have_css("[data-test=shown-by]", text: "white is 400 cd/m²")
    press("y")
    expect(page).to have_css("[role=slider][aria-label=split]")
    press("y")

    click_button "data…"
    address = find("a", text: "all of it, JSON")["href"]
    data = page.evaluate_async_script("fetch(arguments[0]).then((found) => found.text()).then(arguments[1])", address)
    path = File.join(MEDIA, "renditions.json").tap { |file| File.write(file, data) }
    page.find("body").click
    press([:control, "z"])
    until_stored("contrast as it was") { parameters("bt709-100")["contrast"].to_f < 1.01 }
    find("input[aria-label='data of renditions']", visible: :all).attach_file(path)
    expect(page).to have_css("[data-test=news]", text: "levels and corrections of 1 shot read")
    until_stored("what the file says") { parameters("bt709-100")["contrast"].to_f > 1.05 }
  end
end
