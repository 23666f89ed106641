# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "A server that is killed in the middle of a drag" do
  before do
    folder = File.join(MEDIA, "day four")
    FileUtils.mkdir_p(folder)
    FileUtils.cp(File.join(Server::ROOT, "demo/media/heron/H014/H014_1B.mov"), folder)
    project = Server::Project.create!(name: "Storm #{SecureRandom.hex(3)}", width: 960, height: 540)
    clip = Server::Intake::Taking.new(project, Server::MediaRoot.find_by!(path: File.realpath(MEDIA))).call("day four/H014_1B.mov")
    @cut = Server::Cut.assemble(project:, name: "Day", clips: [clip])
    visit "/projects/#{project.id}/cuts/#{@cut.id}/bench"
    settle
    click_button "Begin with Balance"
    settle
  end

  # What is stored, asked of the database itself.
  def stored = @cut.shots.first.recipe.reload.document["steps"][0]["parameters"]["exposure"]

  def move(by)
    @x += by
    page.driver.browser.mouse.move(x: @x, y: @y)
    sleep 0.08
  end

  def take_hold
    @x, @y = page.evaluate_script("(() => { const r = document.querySelector(\"[role=spinbutton][aria-label=exposure]\").getBoundingClientRect(); return [r.x + 20, r.y + 8] })()")
    page.driver.browser.mouse.move(x: @x, y: @y)
    page.driver.browser.mouse.down
  end

  def until_true(seconds: 60)
    deadline = Process.clock_gettime(Process::CLOCK_MONOTONIC) + seconds
    sleep 0.05 until yield || Process.clock_gettime(Process::CLOCK_MONOTONIC) > deadline
    expect(yield).to be_truthy
  end

  it "has the last accepted change, and takes what the hand did since once it is back" do
    take_hold
    6.times { move(8) }
    until_true { stored.positive? }
    Process.kill("KILL", -PROCESSES.running.fetch("web"))
    Process.wait(PROCESSES.running.fetch("web"))
    accepted = stored
    expect(accepted).to be_between(0.05, 10.0)
    6.times { move(8) }
    expect(page).to have_css("[data-test=saved]", text: "not saved yet")
    page.driver.browser.mouse.up
    shown = number("exposure")
    expect([stored, shown]).to match([accepted, be > accepted])
    PROCESSES.start_web
    expect(page).to have_css("[data-test=saved]", text: /\Asaved/)
    expect(stored).to be_within(1e-9).of(shown)
    visit page.current_path
    settle
    expect(number("exposure")).to be_within(1e-4).of(shown)
    expect(Console.instance.complaints.grep_v(/ERR_CONNECTION_REFUSED|ERR_CONNECTION_RESET|ERR_EMPTY_RESPONSE|ERR_INCOMPLETE_CHUNKED|ERR_SOCKET_NOT_CONNECTED/)).to be_empty
  end
end
