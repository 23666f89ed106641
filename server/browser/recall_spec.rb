# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "Recall" do
  before do
    folder = File.join(MEDIA, "day nine")
    FileUtils.mkdir_p(folder)
    %w[heron/H014/H014_1A.mov heron/H014/H014_1B.mov].each { |file| FileUtils.cp(File.join(Server::ROOT, "demo/media", file), folder) }
    project = Server::Project.create!(name: "Pegs #{SecureRandom.hex(3)}", width: 480, height: 270)
    taking = Server::Intake::Taking.new(project, Server::MediaRoot.find_by!(path: File.realpath(MEDIA)))
    clips = %w[H014_1A H014_1B].map { |name| taking.call("day nine/#{name}.mov") }
    @cut = Server::Cut.assemble(project:, name: "Day", clips:)
    visit "/projects/#{project.id}/cuts/#{@cut.id}/bench"
    settle
  end

  def steps_of(name) = @cut.shots.find_by!(name:).recipe.reload.document["steps"]

  # Shift and a digit, as a keyboard sends them.
  def hang(digit)
    page.execute_script("window.dispatchEvent(new KeyboardEvent('keydown', { key: '!', code: `Digit${arguments[0]}`, shiftKey: true }))", digit)
  end

  it "hangs a grade on a peg, tries chosen steps of it elsewhere, and keeps them with one undo" do
    press("g")
    type_number("exposure", "1")
    find("button[aria-label='add a step to shot 1A']").click
    find("[role=menuitem]", text: "Component").click
    settle
    hang(4)
    expect(page).to have_text("grade of 1A on peg 4")
    press("e")
    settle
    plain = patch_mean
    press("4")
    expect(page).to have_css("section[aria-label=recall]", text: "1A")
    settle
    expect(patch_mean.sum).to be > plain.sum
    expect(steps_of("1B")).to be_empty
    uncheck "Component"
    press(:Enter)
    expect(page).to have_no_css("section[aria-label=recall]")
    expect(steps_of("1B").map { |step| [step["kind"], step["parameters"]["exposure"]] }).to eq([["balance", 1.0]])
    press([:control, "z"])
    expect(page).to have_button("Begin with Balance")
    expect(steps_of("1B")).to be_empty
    press("7")
    expect(page).to have_text("Nothing hangs on peg 7")
  end
end
