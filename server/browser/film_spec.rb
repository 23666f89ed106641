# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "A film look" do
  before { @cut = open_bench("heron/H015/H015_2B.mov", name: "Film", encoding: "logc3-ei800-wg3", length: 12) }

  def document = Server::Cut.find(@cut.id).loaded_shots[0].recipe.document

  def step(kind) = document["steps"].find { |one| one["kind"] == kind }

  def part(name) = find("[data-bundle=Film] section[aria-label='#{name}']")

  def flip(name) = find("[data-bundle=Film] [role=switch][aria-label='#{name} on']").click

  it "begins with all its parts off, is made on the diagram, looked at in parts, and scaled, folded and switched as one" do
    find("button[aria-label^='add a step to shot']").click
    find("[role=menuitem]", text: "Film").click
    expect(page).to have_css("[data-bundle=Film] [aria-label$=' on'][aria-checked=false]", count: 6)
    expect(page).to have_css("[aria-label='bundle Film']", text: "all off")
    settle
    plain = small_picture

    flip("Emulsion")
    part("Emulsion").find("button[aria-expanded]").click
    expect(page).to have_css("[data-test=way-darkest]")
    find("[role=switch]", text: "guides").click
    expect(page).to have_css("[data-test=guide-white]").and have_css("[data-test=touch-black]", text: /to go|met|past/)
    drag("[data-test=hold-toe]", dx: 9)
    until_stored("toe") { step("emulsion")["parameters"]["toe"] > 0.2 }
    # each moves the others' handles, when its answer is there
    [["speed", {dx: -9}, ->(it) { it["speed"] > 0.2 }], ["slope", {dy: -6}, ->(it) { it["slope"] > 1.02 }], ["red", {dy: -4}, ->(it) { it["points"][1] > 1 }]].each do |name, way, stored|
      settle
      drag("[data-test=hold-#{name}]", **way)
      until_stored(name) { stored[step("emulsion")["parameters"]] }
    end
    click_button "follow a patch"
    drag("[aria-label='a patch to follow through the film']", dx: 30, dy: 20)
    expect(page).to have_css("[data-test=way-patch]").and have_css("[data-test=film-patch]")

    flip("Halation")
    part("Halation").find("button[aria-expanded]").click
    type_number("from", "0")
    settle
    film = small_picture
    page.driver.browser.keyboard.down("=")
    expect(page).to have_css("[data-test=adds]", text: "Halation")
    settle
    expect(small_picture.sum).to be < film.sum * 0.8
    page.driver.browser.keyboard.up("=")
    expect(page).to have_no_css("[data-test=adds]")

    press([:shift, "t"])
    expect(page).to have_css("[data-test=film-out]")
    settle
    off = small_picture.zip(plain).map { |a, b| (a - b).abs }
    expect(off.max).to be <= 1
    press([:shift, "t"])
    settle
    type_number("strength of bundle Film", "50")
    until_stored("strength") { document["bundles"][0]["strength"] < 0.51 }
    settle
    whole, half = [film, small_picture].map { |made| made.zip(plain).sum { |a, b| (a - b).abs } }
    expect(half / whole.to_f).to be_between(0.3, 0.75)
    click_button "fold Film"
    expect(page).to have_no_css("[data-bundle=Film] section[aria-label=Emulsion]")
    click_button "all parts of Film off"
    until_stored("all off") { document["steps"].none? { |one| one["enabled"] } }
    settle
    expect(small_picture).to eq(plain)
  end
end
