# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "Attention inside the frame" do
  before do
    @folder = File.join(MEDIA, "day thirteen")
    FileUtils.mkdir_p(@folder)
    @project = Server::Project.create!(name: "Regions #{SecureRandom.hex(3)}", width: 960, height: 540)
  end

  # Files of the demo, as somebody has taken them in, one after another.
  def open_cut(frames: nil, **files)
    taking = Server::Intake::Taking.new(@project, Server::MediaRoot.find_by!(path: File.realpath(MEDIA)))
    clips = files.map do |path, encoding|
      FileUtils.cp(File.join(Server::ROOT, "demo/media", "#{path}.mov"), @folder)
      taking.call("day thirteen/#{File.basename(path.to_s)}.mov").tap { |clip| clip.update!(encoding:, encoding_reason: "assigned by hand") unless clip.encoding }
    end
    @cut = Server::Cut.create_named!(@project, "Day")
    clips.each_with_index { |clip, index| @cut.add([{clip:, position: index, source_in: 0, record_in: index * clip.frames, length: frames || clip.frames}]) }
    @shots = Server::Cut.find(@cut.id).loaded_shots
    visit "/projects/#{@project.id}/cuts/#{@cut.id}/bench"
    settle
  end

  def go_frame(frame)
    frame.times { press("d") }
    settle
  end

  # Where a share of the picture lies on the page.
  def at(x, y)
    left, top, width, height = page.evaluate_script("(() => { const r = document.querySelector('canvas[aria-label^=\"picture of shot\"]').getBoundingClientRect(); return [r.x, r.y, r.width, r.height] })()")
    scale = [width / 960.0, height / 540.0].min
    {x: left + width / 2 + (x - 0.5) * 960 * scale, y: top + height / 2 + (y - 0.5) * 540 * scale}
  end

  def click_at(x, y, *keys) = page.driver.browser.mouse.click(**at(x, y), modifiers: page.driver.browser.keyboard.modifiers(keys))

  def drag_at(from, to, *keys)
    mouse = page.driver.browser.mouse
    mouse.move(**at(*from))
    mouse.down(modifiers: page.driver.browser.keyboard.modifiers(keys))
    (1..6).each { |step| mouse.move(**at(*from.zip(to).map { |a, b| a + (b - a) * step / 6.0 })) and sleep(0.03) }
    mouse.up
  end

  def kept = expect(page).to have_css("[data-test=saved]", text: "saved ")

  def stored(shot = @shots.first) = Server::Recipe.find(shot.recipe.id).document["steps"]

  # The matte of a step as the server has it, [540, 960].
  def matte(shot, frame, step)
    cut = Server::Cut.find(@cut.id)
    wish = Server::Pictures::Wish.new(cut:, frame: cut.shot(shot.id).record_in + frame, screen: Server::Screens.of(cut.project, nil))
    Server::Pictures::Desk.new.acting(wish, step:).reshape(540, 960)
  end

  it "keys the sky behind ropes and railings by picks, one of them taken away, and as near the truth as can be" do
    open_cut("dunlin/D207/D207_1D": "s-log3-s-gamut3.cine")
    go_frame(16)
    click_button "Begin with Balance"
    click_button "acts on"
    click_button "+ key"
    find("[data-test=pick-key]").click
    expect(page).to have_text("Shift takes more, Alt fewer")
    picks = {[0.82, 0.06] => [], [0.55, 0.68] => [:shift], [0.5, 0.80] => [:shift], [0.75, 0.85] => [:alt]}
    picks.each do |place, keys|
      before = stored[0].dig("matte", "contributors", 0, "parameters")
      click_at(*place, *keys)
      page.document.synchronize(20) { (stored[0].dig("matte", "contributors", 0, "parameters") != before) || raise(Capybara::ElementNotFound, "the pick changed nothing") }
      settle
    end
    press(:Escape)
    find("button", text: /\A\+ refine/).click
    click_button "clean specks"
    drag("[role=spinbutton][aria-label='size']", dx: 40)
    kept
    settle
    truth = Numo::UInt8.from_binary(Vips::Image.new_from_file(File.join(Server::ROOT, "demo/truth/sky_1D.png")).write_to_memory, [540, 960]) / 255.0
    made = matte(@shots.first, 16, stored[0]["id"])
    both, either = Numo::DFloat.minimum(made, truth).sum, Numo::DFloat.maximum(made, truth).sum
    expect(both / either).to be > 0.93
    click_button "show"
    find("[role=radio]", text: "grey", exact_text: true).click
    settle
    picture = small_picture.each_slice(4).map(&:first)
    expect([picture[6 * 96 + 80], picture[50 * 96 + 20]]).to match([be > 200, be < 25])
    expect(find("[data-test=acting]").text).to match(/% in between/)
    press("z") # its own switch does not block the held key
    click_button "show"
  end

  it "begins from a shape that is drawn, holds the eye in it, corrects it point by point and links it to another shot" do
    open_cut("heron/H014/H014_1A": "logc3-ei800-wg3", "heron/H014/H014_1B": "logc3-ei800-wg3")
    press([:shift, "o"])
    expect(page).to have_text("click point by point")
    corners = [[0.3, 0.2], [0.6, 0.2], [0.6, 0.8], [0.3, 0.8]]
    [*corners, corners.first].each { |corner| click_at(*corner) and sleep(0.15) }
    find("[role=menuitem]", text: "Hold the eye").click
    settle
    kept
    step = stored.first
    shape = step.dig("matte", "contributors", 0)
    expect([step["name"], shape["invert"], shape.dig("parameters", "points").map { |row| row.first(2).map { |one| one.round(2) } }]).to eq(["Hold the eye", true, corners.map { |x, y| [(x - 0.5) * 960 / 540, y - 0.5].map { |one| one.round(2) } }])
    frame = matte(@shots.first, 0, step["id"])
    expect([frame[270, 430], frame[10, 900]]).to match([be < 0.02, be > 0.98])
    drag_at([0.45, 0.2], [0.45, 0.1])
    expect(page).to have_css("[aria-label='Shape, point 2']")
    kept
    page.document.synchronize(10) { (stored.first.dig("matte", "contributors", 0, "parameters", "points").size == 5) || raise(Capybara::ElementNotFound, "no point more") }
    added = stored.first.dig("matte", "contributors", 0, "parameters", "points")[1]
    expect(added[1]).to be_within(0.015).of(-0.4)
    find("[aria-label='Shape, point 2']").send_keys(:enter)
    page.document.synchronize(10) { stored.first.dig("matte", "contributors", 0, "parameters", "points")[1][2, 4].any?(&:nonzero?) || raise(Capybara::ElementNotFound, "still a corner") }
    find("[aria-label='Shape, point 2']").send_keys(:right, :right)
    page.document.synchronize(10) { (stored.first.dig("matte", "contributors", 0, "parameters", "points")[1][0] > added[0] + 0.002) || raise(Capybara::ElementNotFound, "not nudged") }
    page.driver.browser.keyboard.down(";")
    expect(page).to have_no_css("[aria-label=shapes]")
    page.driver.browser.keyboard.up(";")
    expect(page).to have_css("[aria-label=shapes]")
    press("e")
    settle
    click_button "Begin with Balance"
    click_button "+ from elsewhere"
    find("button[aria-label='matte from']").click
    find("[role=option]", text: "Hold the eye").click
    kept
    settle
    own = -> { Server::Recipe.find(@shots.last.recipe.id).document["steps"].first }
    page.document.synchronize(10) { own.call.dig("matte", "contributors", 0, "parameters", "step") == step["id"] || raise(Capybara::ElementNotFound, "not linked") }
    first, linked = matte(@shots.first, 0, step["id"]), matte(@shots.last, 0, own.call["id"])
    expect((first - linked).abs.max).to be < 1e-4
    share = find("[role=tablist] span").text
    press("q")
    settle
    click_button "more for Hold the eye"
    click_button "remove", match: :first
    expect(page).to have_text(/used by .* · Balance/)
    expect([share, stored.first["name"]]).to match([/\d+ % of the picture/, "Hold the eye"])
  end

  it "tracks a shape through a shot in the background and carries it" do
    open_cut("knot/K034/K034_3C": "log3g10-wgrgb", frames: 44)
    press([:shift, "o"])
    drag_at([0.335, 0.46], [0.39, 0.625])
    find("[role=menuitem]", text: "Balance, as it is").click
    settle
    find("button", text: /\Aon/).click
    expect(page).to have_css("[role=progressbar][aria-label=tracking], [data-test=path]")
    expect(page).to have_css("[data-test=path]", text: "follows", wait: 180)
    kept
    settle
    step = stored.first
    path = Server::Path.last
    expect([step.dig("matte", "contributors", 0, "path", "id"), path.track.span, path.track.lost]).to eq([path.id, 0..43, nil])
    expect(path.track.motion(42)[:x] * 540).to be_within(2).of(507.7) # the lamp, by the scene's own numbers
    before, after = [0, 42].map { |frame| matte(@shots.first, frame, step["id"]) }
    middle = ->(plane) { (plane.sum(axis: 0) * Numo::SFloat.new(960).seq).sum / plane.sum }
    expect(middle[after] - middle[before]).to be_within(4).of(507.7)
  end
end
