# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "Change over time" do
  before do
    @folder = File.join(MEDIA, "day fourteen")
    FileUtils.mkdir_p(@folder)
    @project = Server::Project.create!(name: "Time #{SecureRandom.hex(3)}", width: 480, height: 270)
  end

  # A cut of files of the demo, as somebody has taken them in.
  def open_cut(files, **last)
    taking = Server::Intake::Taking.new(@project, Server::MediaRoot.find_by!(path: File.realpath(MEDIA)))
    clips = files.map do |path, encoding|
      FileUtils.cp(Dir[File.join(Server::ROOT, "demo/**/#{path}.mov")].first, @folder)
      taking.call("day fourteen/#{File.basename(path.to_s)}.mov").tap { |clip| clip.update!(encoding:, encoding_reason: "assigned by hand") }
    end
    @cut = Server::Cut.create_named!(@project, "Day")
    clips.each_with_index do |clip, index|
      more = (index == clips.size - 1) ? last : {}
      length = (clips.size > 1) ? 40 : clip.frames
      @cut.add([{clip:, position: index, source_in: (clips.size > 1) ? 4 : 0, record_in: index * length, length:, **more}])
    end
    visit "/projects/#{@project.id}/cuts/#{@cut.id}/bench"
    settle
  end

  def fresh = Server::Cut.find(@cut.id)

  def document(index = 0) = fresh.loaded_shots[index].recipe.document

  def kept = expect(page).to have_css("[data-test=saved]", text: "saved ")

  # To a frame of the cut, by its timecode.
  def go_to(frame)
    find("[data-test=clock-rec]").click
    field = find("input[aria-label='rec timecode to go to']")
    field.send_keys([:control, "a"], fresh.timecode(frame).to_s, :enter)
    expect(page).to have_css("[data-test=clock-rec]", text: fresh.timecode(frame).to_s)
    settle
  end

  # Log codes of the working space, with the grade of a shot or another one.
  def picture(frame, size: "full", **documents)
    cut = fresh
    trial = documents.to_h { |name, document| [cut.loaded_shots[name.to_s.delete_prefix("shot").to_i].recipe.id, Mordant::Grade::Recipe.new(document)] }
    Server::Pictures::Desk.new.picture(Server::Pictures::Wish.new(cut:, frame:, screen: Server::Screens.of(cut.project, nil), trial: trial.empty? ? nil : trial), size:).first.rgb
  end

  # How much of one grade there is of the way from none to it, by least squares over all pixels.
  def share_of(frame, whole)
    none, full, here = [{shot0: {"steps" => []}}, {shot0: whole}, {}].map { |grades| picture(frame, size: "small", **grades) }
    change = full - none
    ((here - none) * change).sum / (change * change).sum
  end

  it "calms a bright moment in a loose shape that follows it, from where it begins, and changes strength and end afterwards" do
    open_cut({"K034_3C" => "log3g10-wgrgb"}, length: 36)
    press([:shift, "o"])
    drag_in_picture([0.3, 0.42], [0.43, 0.66])
    find("[role=menuitem]", text: "Balance, as it is").click
    settle
    find("button", text: /\Aon/).click
    expect(page).to have_css("[data-test=path]", wait: 180)
    click_button "what it does"
    type_number("exposure", "-1")
    go_to(12)
    press("[")
    expect(page).to have_css("[aria-label=strip]")
    within("[aria-label=strip]") do
      expect(page).to have_css("[aria-label^='path ']")
      field = find("input[aria-label='fade in before']")
      field.click
      field.send_keys([:control, "a"], "6", :enter)
    end
    until_stored("a fade in") { document.dig("spans", 0, "fade_in") == [6, 0] }
    kept
    frames = fresh.loaded_shots.first.length
    expect(document["spans"].map { |span| span.values_at("start", "finish", "fade_out") }).to eq([[12, frames - 1, [0, 0]]])
    whole = document.merge("steps" => document["steps"].map { |step| step.except("spans") })
    expect([5, 6, 9, 12, 20].map { |frame| share_of(frame, whole).round(4) }).to eq([0.0, 0.0, 0.5, 1.0, 1.0])
    expect(picture(6)).to eq(picture(6, shot0: {"steps" => []}))

    # the fade is pulled longer: the mark stays
    drag("[aria-label='fade in before it: span 1']", dx: -40)
    until_stored("a longer fade") { document.dig("spans", 0, "fade_in", 0) > 6 }
    expect(document.dig("spans", 0, "start")).to eq(12)
    expect(share_of(12, whole).round(4)).to eq(1.0)

    # strength and end, later
    go_to(30)
    press("]")
    type_number("strength of Balance", "60")
    until_stored("an end and a strength") { document.dig("spans", 0, "finish") == 30 && document.dig("steps", 0, "strength").to_s == "0.6" }
    full = whole.merge("steps" => whole["steps"].map { |step| step.merge("strength" => 1.0) })
    expect([12, 30, 31].map { |frame| share_of(frame, full) }).to match([be_within(1e-3).of(0.6), be_within(1e-3).of(0.6), 0.0])
    find("button[aria-label^='span span 1']").send_keys(:right, :right)
    until_stored("a nudge") { document.dig("spans", 0, "start") == 14 }
    press([:control, "z"])
    until_stored("the nudge undone") { document.dig("spans", 0, "start") == 12 }
    expect(page).to have_css("[data-test=spanned]", text: /\Ahere(?! \d)/)
  end

  it "moves one parameter from key to key, drags, eases, copies and takes keys off by pointer and keyboard" do
    open_cut({"K034_3C" => "log3g10-wgrgb"})
    click_button "Begin with Balance"
    type_number("exposure", "0.5")
    press([:shift, "k"])
    until_stored("a key") { document.dig("steps", 0, "keys", "exposure")&.size == 1 }
    go_to(20)
    type_number("exposure", "1.5")
    type_number("contrast", "1.2")
    until_stored("two keys") { document.dig("steps", 0, "keys", "exposure")&.size == 2 && document.dig("steps", 0, "parameters", "contrast").to_s == "1.2" }
    expect(document.dig("steps", 0, "keys").keys).to eq(["exposure"])
    balance = ->(stops) { document.merge("steps" => [document["steps"][0].except("keys").merge("parameters" => document["steps"][0]["parameters"].merge("exposure" => stops))]) }
    expect([0, 10, 20].zip([0.5, 1.0, 1.5]).map { |frame, stops| (picture(frame) - picture(frame, shot0: balance[stops])).abs.max }).to all(be < 1e-5)
    go_to(10)
    expect(find("[role=spinbutton][aria-label=exposure]")["aria-valuenow"]).to eq("1")
    find("button[aria-label='key of exposure at frame 1']").click
    find("button[aria-label='easing after the key']").click
    find("[role=option]", exact_text: "smooth").click
    until_stored("an easing") { document.dig("steps", 0, "keys", "exposure", 0, "ease") == "smooth" }
    click_button "graph"
    expect(page).to have_css("path[data-test=course][d^=M]")
    # caught by the playhead, which stands at frame 11
    width = page.evaluate_script("document.querySelector('[data-test=lanes]').getBoundingClientRect().width").fdiv(fresh.loaded_shots.first.length)
    drag("button[aria-label='key of exposure at frame 21']", dx: (-9.8 * width).round)
    until_stored("a key that was dragged") { document.dig("steps", 0, "keys", "exposure", 1, "frame") == 10 }
    expect((picture(5) - picture(5, shot0: balance[1.0])).abs.max).to be < 1e-5
    find("button[aria-label='key of exposure at frame 11']").send_keys(:right, [:shift, :right])
    until_stored("nudges") { document.dig("steps", 0, "keys", "exposure", 1, "frame") == 16 }
    press([:control, "c"])
    go_to(30)
    find("[aria-label=strip]").click(x: 30, y: 8)
    press([:control, "v"])
    until_stored("a pasted key") { document.dig("steps", 0, "keys", "exposure").map { |key| key["frame"] } == [0, 16, 30] }
    find("button[aria-label='key of exposure at frame 31']").send_keys(:delete)
    until_stored("a key less") { document.dig("steps", 0, "keys", "exposure").size == 2 }
    press([:shift, "a"])
    expect(page).to have_css("button[aria-pressed=true]", text: "keyed at this frame")
    press([:shift, "k"])
    until_stored("another key less") { document.dig("steps", 0, "keys", "exposure").size == 1 }
  end

  it "grades across a dissolve, each shot by itself, and says which frames are missing" do
    open_cut({"K034_3C" => "log3g10-wgrgb", "H017_3D" => "logc3-ei800-wg3"}, dissolve: 12)
    click_button "Begin with Balance"
    type_number("exposure", "1")
    kept
    press("e")
    settle
    click_button "Begin with Balance"
    type_number("exposure", "-1")
    until_stored("both grades") { [0, 1].map { |index| document(index).dig("steps", 0, "parameters", "exposure") } == [1.0, -1.0] }
    click_link "Assembly"
    find("[data-row]", text: /3D/).click
    find("button[aria-label='how it goes']").click
    find("[role=option]", text: "eased").click
    until_stored("an eased dissolve") { fresh.shots.last.manner == {"curve" => "eased"} }
    [40, 45, 51].each do |frame|
      share = (1 - Math.cos(Math::PI * (frame - 39) / 13.0)) / 2
      sides = [[0, frame], [1, frame - 40]].map do |index, at|
        shot = fresh.loaded_shots[index]
        shot.clip.reader.frame(4 + at, width: 480, height: 270).then { |codes| Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new(document(index)), source: shot.clip.code_encoding).run(codes).rgb }
      end
      expect((picture(frame) - (sides[0] * (1 - share) + sides[1] * share)).abs.max).to be < 1e-5
    end
    field = find("[aria-label=transition] input[aria-label=over]")
    field.click
    field.send_keys([:control, "a"], "30", :enter)
    expect(page).to have_css("[data-test=handles]", text: /30 frames are wanted after .*3C; it has \d+/)
    click_button "hold its last frame"
    until_stored("a held frame") { fresh.shots.last.slice("dissolve", "manner") == {"dissolve" => 30, "manner" => {"curve" => "eased", "hold" => true}} }
    last = fresh.shots.first.clip.frames - 1
    expect(fresh.timeline.layers(69).first.source_frame).to eq(last)
  end

  it "lets two grades cross over a dissolve that is in a flat programme, by the picture's own mix" do
    @project.update!(working_space: "display")
    open_cut({"salt_lantern" => "rec709-bt1886"})
    first, count = 474, 12
    go_to(first)
    press(",")
    go_to(first + count - 1)
    press(".")
    press([:shift, "x"])
    until_stored("a crossover") { fresh.shots.map { |shot| [shot.source_in, shot.dissolve] } == [[0, 0], [first, count]] }
    shares = fresh.shots.last.manner["shares"]
    truth = (1..count).map { |frame| frame / (count + 1.0) }
    expect(shares.zip(truth).sum { |a, b| (a - b).abs } / count).to be < 0.05
    settle
    go_to(first - 1)
    click_button "Begin with Balance"
    type_number("exposure", "0.5")
    kept
    press("e")
    settle
    click_button "Begin with Balance"
    type_number("exposure", "-0.5")
    until_stored("both grades") { [0, 1].map { |index| document(index).dig("steps", 0, "parameters", "exposure") } == [0.5, -0.5] }
    reader = fresh.shots.first.clip.reader
    [[first - 1, 0.0], [first, shares.first], [first + 6, shares[6]], [first + count - 1, shares.last], [first + count, 1.0]].each do |frame, share|
      one, other = [0.5, -0.5].map { |stops| Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new("steps" => [{"id" => "a", "kind" => "balance", "parameters" => {"exposure" => stops}}]), source: "rec709-bt1886", space: fresh.project.space).run(reader.frame(frame, width: 480, height: 270)).rgb }
      expect((picture(frame) - (one * (1 - share) + other * share)).abs.max).to be < 1e-5
    end
  end

  # Drags from one share of the picture to another.
  def drag_in_picture(from, to)
    left, top, width, height = page.evaluate_script("(() => { const r = document.querySelector('canvas[aria-label^=\"picture of shot\"]').getBoundingClientRect(); return [r.x, r.y, r.width, r.height] })()")
    scale = [width / 480.0, height / 270.0].min
    at = ->(x, y) { {x: left + width / 2 + (x - 0.5) * 480 * scale, y: top + height / 2 + (y - 0.5) * 270 * scale} }
    mouse = page.driver.browser.mouse
    mouse.move(**at[*from])
    mouse.down
    (1..6).each { |step| mouse.move(**at[*from.zip(to).map { |a, b| a + (b - a) * step / 6.0 }]) and sleep(0.03) }
    mouse.up
  end
end
