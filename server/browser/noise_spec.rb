# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "Noise and banding" do
  before { @cut = open_bench("knot/K034/K034_3A.mov", name: "Night", encoding: "log3g10-wgrgb", length: 6) }

  def steps = Server::Cut.find(@cut.id).loaded_shots[0].recipe.document["steps"]

  def add(name)
    find("button[aria-label^='add a step to shot']").click
    find("[role=menuitem]", text: /\A#{name}/).click
    settle
  end

  it "is taken away first, looked at by what goes, measured, made ready by workers, and suspended with one key everywhere" do
    add("Balance")
    add("Noise")
    plain = small_picture
    click_button "put it first"
    until_stored("its place") { steps[0]["kind"] == "noise" }
    type_number("luma", "1")
    find("[role=radio]", text: "linked").click
    type_number("frames", "1")
    until_stored("its numbers") { steps[0]["parameters"].values_at("luma", "link", "frames") == [1.0, "linked", 1.0] }
    settle
    expect(small_picture).not_to eq(plain)
    expect(page).to have_no_css("[aria-label='colour']")

    click_button "measure the shot"
    expect(page).to have_css("[data-test=noise-luma_0]")
    find("[role=switch]", text: "what it takes").click
    expect(page).to have_css("[data-test=adds]", text: "Noise")
    find("[role=switch]", text: "what it takes").click
    settle

    click_button "make the shot ready"
    expect(page).to have_text("all frames ready", wait: 60)
    type_number("luma", "0.5")
    expect(page).to have_text(/[01] of 6 frames ready/)

    press([:shift, "n"])
    expect(page).to have_css("[data-test=noise-out]")
    press([:shift, "m"])
    expect(page).to have_css("[data-test=breaks]")
  end
end
