# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "Comparing" do
  before do
    folder = File.join(MEDIA, "day ten")
    FileUtils.mkdir_p(folder)
    %w[heron/H014/H014_1A.mov heron/H014/H014_1B.mov].each { |file| FileUtils.cp(File.join(Server::ROOT, "demo/media", file), folder) }
    project = Server::Project.create!(name: "Pairs #{SecureRandom.hex(3)}", width: 480, height: 270)
    taking = Server::Intake::Taking.new(project, Server::MediaRoot.find_by!(path: File.realpath(MEDIA)))
    clips = %w[H014_1A H014_1B].map { |name| taking.call("day ten/#{name}.mov") }
    @cut = Server::Cut.assemble(project:, name: "Day", clips:)
    visit "/projects/#{project.id}/cuts/#{@cut.id}/bench"
    settle
  end

  def clock(of) = find("[data-test='#{of}']").text

  # Waits until a clock has gone on.
  def expect_running(of)
    before = clock(of)
    expect(page).to have_no_css("[data-test='#{of}']", text: before, exact_text: true)
  end

  def expect_still(of)
    before = clock(of)
    sleep 0.6
    expect(clock(of)).to eq(before)
  end

  def canvas(label)
    page.evaluate_script(<<~JS)
      (() => {
        const copy = new OffscreenCanvas(300, 200).getContext('2d', { willReadFrequently: true })
        copy.drawImage(document.querySelector("canvas[aria-label='#{label}']"), 0, 0)
        return copy.getImageData(0, 0, 300, 200).data.reduce((sum, x) => sum + x, 0)
      })()
    JS
  end

  it "plays two pictures side by side, together and each by itself" do
    press("e")
    settle
    press("y")
    find("button[title^='Y: compare']").click
    click_button "side by side"
    find("[role=radio]", text: "shots away").click
    press(:Escape)
    expect(page).to have_css("canvas[aria-label='reference']")
    expect(page).to have_css("[data-settled=true]", minimum: 2)
    expect(canvas("reference")).not_to eq(canvas("picture of shot 1B"))

    find("[data-test='first-play']").click
    expect_running("clock-rec")
    expect_running("second-clock")
    still = canvas("reference")
    find("[data-test='second-play']").click
    expect_still("second-clock")
    expect_running("clock-rec")
    find("[data-test='first-play']").click
    expect_still("clock-rec")
    find("[data-test='second-play']").click
    expect_running("second-clock")
    expect_still("clock-rec")
    expect(canvas("reference")).not_to eq(still)
    find("[data-test='second-linked']").click
    expect(page).to have_css("[data-test='second-play']", text: "play")
    first, second = %w[clock-rec second-clock].map { |of| clock(of)[-2..].to_i }
    expect((first - second) % 24).to eq(@cut.shots.first.length % 24)
  end

  it "freezes what is seen, so that what is graded afterwards stands beside it" do
    press("g")
    find("button[title^='Y: compare']").click
    click_button "freeze this picture"
    expect(page).to have_css("button", text: "1A graded, frozen")
    click_button "side by side"
    press(:Escape)
    expect(page).to have_css("[data-settled=true]", minimum: 2)
    before = resting("reference")
    type_number("exposure", "1")
    expect(page).to have_css("[data-settled=true]", minimum: 2)
    expect(canvas("picture of shot 1A")).to be > before
    expect(resting("reference")).to eq(before)
  end

  # Once its own pixels have come too.
  def resting(name)
    page.document.synchronize(20) do
      first = canvas(name)
      sleep 0.5
      canvas(name).tap { |now| raise(Capybara::ElementNotFound, "#{name} still changes") unless now == first }
    end
  end
end
