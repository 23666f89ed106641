# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "Two windows on one shot" do
  let(:cut) do
    project = Server::Project.create!(name: "Shared", width: 960, height: 540)
    FileUtils.cp(File.join(Server::ROOT, "demo/media/heron/H014/H014_1B.mov"), File.join(MEDIA, "shared.mov"))
    clip = Server::Intake::Taking.new(project, Server::MediaRoot.configure(MEDIA)).call("shared.mov")
    Server::Cut.assemble(project:, name: "Cut 1", clips: [clip])
  end

  it "tells the second of what the first did, and loses neither" do
    address = "/projects/#{cut.project_id}/cuts/#{cut.id}/bench"
    visit address
    click_button "Begin with Balance"
    type_number("exposure", "1")
    expect(page).to have_css("[data-test=saved]", text: /\Asaved/)
    # what the other does is not heard of in time here
    page.execute_script("const ask = window.fetch; window.fetch = (at, how) => (how.method === 'GET' && /api.recipes/.test(at) ? new Promise(() => {}) : ask(at, how))")
    other = open_new_window
    within_window(other) do
      visit address
      type_number("exposure", "2")
      expect(page).to have_css("[data-test=saved]", text: /\Asaved/)
    end
    type_number("tint", "9")
    expect(page).to have_text("This grade was changed elsewhere")
    click_button "Take the other"
    expect(page).to have_css("[role=spinbutton][aria-label=exposure][aria-valuenow='2']")
    expect(page).to have_css("[role=spinbutton][aria-label=tint][aria-valuenow='0']")
    click_button "redo"
    expect(page).to have_css("[role=spinbutton][aria-label=tint][aria-valuenow='9']")
    expect(page).to have_css("[role=spinbutton][aria-label=exposure][aria-valuenow='1']")
  end
end
