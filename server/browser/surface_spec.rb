# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "A control surface" do
  # A port as Web MIDI has them, played by hand.
  let(:dials) { <<~JS }
    window.port = { name: 'Eight dials', onmidimessage: null }
    Object.defineProperty(navigator, 'requestMIDIAccess', { configurable: true, value: async () => ({ inputs: new Map([['a', window.port]]), onstatechange: null }) })
  JS

  before do
    folder = File.join(MEDIA, "day six")
    FileUtils.mkdir_p(folder)
    FileUtils.cp(File.join(Server::ROOT, "demo/media/heron/H014/H014_1B.mov"), folder)
    project = Server::Project.create!(name: "Dials #{SecureRandom.hex(3)}", width: 480, height: 270)
    clip = Server::Intake::Taking.new(project, Server::MediaRoot.find_by!(path: File.realpath(MEDIA))).call("day six/H014_1B.mov")
    @cut = Server::Cut.assemble(project:, name: "Day", clips: [clip])
    visit "/projects/#{project.id}/cuts/#{@cut.id}/bench"
    settle
    page.execute_script(dials)
  end

  def send_midi(*bytes) = page.execute_script("window.port.onmidimessage({ data: new Uint8Array(arguments) })", *bytes)

  it "is connected, bound to a number and a key, and grades" do
    press("g")
    settle
    click_button "surface"
    click_button "connect"
    expect(page).to have_text("Eight dials")
    find("button[aria-label='number to bind']").click
    find("[role=option]", text: "exposure", match: :first).click
    expect(page).to have_text("Move a control for Balance, exposure")
    send_midi(0xb0, 21, 60)
    expect(page).to have_css("[aria-label=bindings] li", text: "cc 1.21")
    find("button[aria-label='key to bind']").click
    find("[role=option]", text: "view transform on and off").click
    send_midi(0x90, 36, 100)
    press(:Escape)
    (61..70).each { |value| send_midi(0xb0, 21, value) }
    settle
    nudge = Mordant::Steps::Balance.parameters.fetch(:exposure).to_h.fetch(:nudge)
    expect(number("exposure")).to be_within(1e-6).of(10 * nudge)
    expect(page).to have_css("[data-test=saved]", text: /\Asaved/)
    send_midi(0x90, 36, 100)
    expect(page).to have_text("view off")
    expect(@cut.shots.first.recipe.reload.document["steps"][0]["parameters"]["exposure"]).to be_within(1e-6).of(10 * nudge)
    press([:control, "z"]) # ten steps of one turn are one change
    expect(page).to have_css("[role=spinbutton][aria-label=exposure][aria-valuenow='0']")
  end
end
