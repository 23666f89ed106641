# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "Screens" do
  let(:off) { {"primaries" => [[0.66, 0.33], [0.28, 0.64], [0.15, 0.055]], "white" => [0.29, 0.30], "peak" => 110.0, "black" => 0.05, "gamma" => [2.0, 2.3, 2.5], "settle" => 0.01} }
  let(:calibration) { Mordant::Calibration }
  let(:lines) { [] }

  after { lines.each(&:stop) }

  def serve(device)
    line = calibration::Line::Server.new(device)
    lines << line
    Thread.new { line.run }
    line.address
  end

  def bring_stand_ins
    @screen = serve(calibration::StandIn::Screen.new(off))
    @probe = serve(calibration::StandIn::Probe.new({"noise" => 0.001, "floor" => 0.002, "integration" => 0.005}, screen: calibration::Line::Sight.new(@screen)))
  end

  def type_address(device, address)
    field = find("input[aria-label='address of the #{device}']")
    field.set(address)
    field.send_keys(:Tab)
  end

  it "are measured, corrected and verified, and correct the pictures of their own window alone" do
    bring_stand_ins
    cut = open_bench("knot/K034/K034_3A.mov", name: "Dusk", encoding: "log3g10-wgrgb", length: 4)
    plain = small_picture

    find("nav[aria-label=rooms] a", text: "Screens").click
    click_button "another screen"
    expect(page).to have_button("Measure and correct", disabled: true)
    find("input[aria-label='name of the screen']").set("Desk").send_keys(:Tab)
    expect(page).to have_css("[role=option]", text: /Desk\s*control screen\s*not measured yet/)
    type_address("screen", "10.1.2.3:7311")
    expect(page).to have_text("an address on this machine")
    type_address("screen", @screen)
    type_address("probe", @probe)
    until_stored("addresses") { Server::Screen.find_by(name: "Desk")&.probe_address == @probe }
    click_button "Measure and correct"
    patches = window_opened_by { click_button "patch window" }
    within_window(patches) do
      seen = Set.new
      page.document.synchronize(30) { seen.add(find("[data-test=patch-window]").style("background-color")) && seen.size > 3 || raise(Capybara::ElementNotFound, "no patches") }
      page.current_window.close
    end
    press("p")
    expect(page).to have_css("section[aria-label=session]", text: "paused")
    read = Server::Calibration.last.reload.done
    press("p")
    expect(page).to have_css("[data-test=de2000_mean-after]", text: /\A0\.\d\d\z/, wait: 90)
    expect(Server::Calibration.last.done).to be > read
    expect(find("[data-test=de2000_mean-before]").text.to_f).to be > 3
    expect(page).to have_css("[data-test=patch-error]", count: 44)
    expect(page).to have_css("[role=option]", text: "verified today")

    click_button "Verify"
    expect(page).to have_css("section[aria-label=sessions] button", text: /verified\s*dE mean 0\.\d\d/, wait: 60)
    Server::Calibration.update_all(ended_at: 50.days.ago)

    visit "/projects/#{cut.project_id}/cuts/#{cut.id}/bench"
    settle
    expect(small_picture).to eq(plain)
    find("[title^='what this screen shows']").click
    find("[role=radiogroup][aria-label='measured screen'] [role=radio]", text: /Desk\s*control screen, verified 50 days ago; verify it again/).click
    settle
    page.document.synchronize(20) { small_picture != plain || raise(Capybara::ElementNotFound, "the picture is not corrected") }
    expect(find("[title^='what this screen shows']")).to have_text("unverified")
    find("[role=radio]", text: "none that was measured").click
    page.document.synchronize(20) { small_picture == plain || raise(Capybara::ElementNotFound, "the correction stays") }
  end
end
