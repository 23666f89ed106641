# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "The quick order" do
  before do
    folder = File.join(MEDIA, "day five")
    FileUtils.mkdir_p(folder)
    %w[heron/H014/H014_1B.mov dunlin/D207/D207_1C.mov dunlin/D207/D207_1D.mov].each { |file| FileUtils.cp(File.join(Server::ROOT, "demo/media", file), folder) }
    project = Server::Project.create!(name: "Quick #{SecureRandom.hex(3)}", width: 480, height: 270,
      input_rules: [{"field" => "camera", "pattern" => "dunlin", "encoding" => "s-log3-s-gamut3.cine"}])
    taking = Server::Intake::Taking.new(project, Server::MediaRoot.find_by!(path: File.realpath(MEDIA)))
    clips = %w[H014_1B D207_1C D207_1D].map { |name| taking.call("day five/#{name}.mov") }
    @cut = Server::Cut.assemble(project:, name: "Day", clips:)
    visit "/projects/#{project.id}/cuts/#{@cut.id}/bench"
    settle
  end

  # Numbers that stand beside a line, in their order.
  def reading(line) = find("[data-reading='#{line}']").text.scan(/\d+\.\d/).map(&:to_f)

  def focused = page.evaluate_script("document.activeElement.getAttribute('aria-label')")

  def down_to(line)
    press("g")
    expect(focused).to eq(line)
  end

  # Types a value for what has the focus, and looks.
  def set(value)
    label = focused
    press(:Enter)
    find("input[aria-label='#{label}, typed']")
    press(value.round(4).to_s, :Enter)
    settle
    press(:Shift) # nothing by itself: the focus stays with the number
    page.execute_script("document.querySelector(arguments[0]).focus()", "[aria-label='#{label}']")
    yield
  end

  # Tries values until what is read is as wanted, each try guessed from the two before.
  def aim(wanted, first:, within: 0.9, &read)
    at, found = number(focused), read.call
    to = at + first
    4.times do
      return found if (found - wanted).abs <= within

      now = set(to, &read)
      slope = (now - found) / (to - at)
      at, found = to, now
      to = at + ((slope.abs < 1e-6) ? first : (wanted - found) / slope).clamp(-first.abs * 6, first.abs * 6)
    end
    found
  end

  def balance
    down_to("contrast")
    aim(97.0, first: 0.1) { reading("contrast").last }
    down_to("pivot")
    aim(90.0, first: 0.3) { reading("pivot").last }
    down_to("offset all")
    aim(2.0, first: -1.0) { reading("offset all").first }
    down_to("temperature")
    aim(0.0, first: -3.0) { reading("temperature").reduce(:-) }
    down_to("tint")
    aim(0.0, first: -2.0) { reading("tint").reduce(:-) }
    down_to("gain all")
    aim(92.0, first: 0.02) { reading("gain all").first }
    down_to("gamma all")
    down_to("saturation")
    set(1.08) { nil }
  end

  it "balances two shots by keyboard alone, and the scopes say so" do
    found = %w[1B 1C].each_with_index.map do |name, index|
      press("e") if index.positive?
      expect(page).to have_css("[role=option][aria-selected=true]", text: name)
      settle
      balance
      {white: reading("gain all").first, black: reading("offset all").first, warm: reading("temperature").reduce(:-), fresh: reading("tint").reduce(:-)}
    end
    expect(found.map { |one| one[:white] }).to all(be_within(1.5).of(92.0))
    expect(found.map { |one| one[:black] }).to all(be_between(0.0, 5.0))
    expect(found.flat_map { |one| one.values_at(:warm, :fresh) }).to all(be_within(1.5).of(0.0))
    steps = @cut.shots.order(:position).first(2).map { |shot| shot.recipe.reload.document["steps"][0]["parameters"] }
    expect(steps.map { |values| values["saturation"] }).to eq([1.08] * 2)
    # 1C was photographed a stop and a half too dark; its white has come the longest way.
    expect(steps.map { |values| values["contrast"] }.each_with_index.max.last).to eq(1)
  end

  it "finds a first balance, keeps a patch of skin measured, and lays a wash over all" do
    press("e")
    settle
    press("g", "u")
    expect(page).to have_css("[role=spinbutton][aria-label=exposure][aria-valuenow^='1.']")
    settle
    press("k")
    drag("canvas[aria-label^='picture of shot']", dx: 12, dy: 12)
    expect(page).to have_css("[data-test=skin-patch]")
    expect(page).to have_css("[data-test=skin]", text: /°|line|skin/)
    before = find("[role=group][aria-label=skin]").text
    type_number("temperature", "25")
    settle
    expect(find("[role=group][aria-label=skin]").text).not_to eq(before)
    before = patch_mean
    click_button "+ wash over the cut"
    find("button[aria-label='add a step to Default look']").click
    find("[role=menuitem]", text: "Balance", match: :first).click
    type_number("exposure", "-1")
    settle
    expect(patch_mean.sum).to be < before.sum
    press("e")
    settle
    expect(page).to have_css("section[aria-label='wash Default look']")
    2.times { press([:control, "z"]) }
    expect(page).to have_text("No steps yet")
    expect(@cut.washes.first.recipe.reload.document["steps"]).to be_empty
  end
end
