# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "First light" do
  before do
    folder = File.join(MEDIA, "day three")
    FileUtils.mkdir_p(folder)
    %w[heron/H014/H014_1B.mov dunlin/D207/D207_1C.mov dunlin/D207/D207_1D.mov].each { |file| FileUtils.cp(File.join(Server::ROOT, "demo/media", file), folder) }
    project = Server::Project.create!(name: "Rushes #{SecureRandom.hex(3)}", width: 480, height: 270,
      input_rules: [{"field" => "camera", "pattern" => "dunlin", "encoding" => "s-log3-s-gamut3.cine"}])
    taking = Server::Intake::Taking.new(project, Server::MediaRoot.find_by!(path: File.realpath(MEDIA)))
    clips = %w[H014_1B D207_1C D207_1D].map { |name| taking.call("day three/#{name}.mov") }
    @cut = Server::Cut.assemble(project:, name: "Day", clips:)
    visit "/projects/#{project.id}/cuts/#{@cut.id}/bench"
    settle
  end

  def focus(label) = page.execute_script("document.querySelector(arguments[0]).focus()", "[role=spinbutton][aria-label='#{label}']")

  def keyed(label, text)
    focus(label)
    press(:Enter)
    find("input[aria-label='#{label}, typed']")
    press(text, :Enter)
    settle
  end

  def steps_of(name) = @cut.shots.find_by!(name:).recipe.reload.document["steps"]

  it "balances, borrows, copies and goes back by keyboard" do
    press("e")
    expect(page).to have_css("[role=option][aria-selected=true]", text: "1C")
    settle
    click_button "Begin with Balance"
    settle
    dark = patch_mean.sum
    keyed("exposure", "1.5")
    focus("saturation")
    press(:Up, :Up)
    settle
    expect(number("saturation")).to be_within(1e-6).of(1.02)
    expect(patch_mean.sum).to be > dark * 1.2
    borrow_for_the_next
    copy_to_the_first
    go_back
  end

  def borrow_for_the_next
    press("e")
    expect(page).to have_css("[role=option][aria-selected=true]", text: "1D")
    settle
    own = patch_mean
    press("b")
    expect(page).to have_text("grade of 1C on trial")
    settle
    expect(patch_mean.sum).to be > own.sum
    press(:Escape)
    expect(page).to have_no_text("on trial")
    settle
    expect(patch_mean).to eq(own)
    press("b")
    expect(page).to have_text("grade of 1C on trial")
    press(:Enter)
    expect(page).to have_no_text("on trial")
    settle
    expect(number("exposure")).to eq(1.5)
  end

  def copy_to_the_first
    find("body").send_keys([:control, "c"])
    find("[role=option]", text: "1B").click(:control)
    find("body").send_keys([:control, "v"])
    expect(page).to have_text("Balance put on 1B")
    expect(steps_of("1B").map { |step| step["parameters"]["exposure"] }).to eq([1.5])
    expect(steps_of("1D").size).to eq(1) # where it came from it is not put again
  end

  def go_back
    click_button "history"
    expect(page).to have_button(text: "grade of 1C borrowed")
    find("button", text: "as it began").click
    expect(page).to have_css("button.border-weld", text: "as it began")
    expect(%w[1B 1C 1D].map { |name| steps_of(name) }).to all(be_empty)
    find("button", text: "Balance put on 1B").click
    expect(page).to have_css("button.border-weld", text: "Balance put on 1B")
    expect(steps_of("1D").size).to eq(1)
  end
end
