# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "Two people and somebody who looks" do
  before do
    {"Ida Rooke" => "administer", "Bo Larch" => "grade"}.each { |name, role| Server::Person.made("name" => name, "role" => role, "password" => password) }
    heard(true)
  end

  after do
    Server::SignIn.delete_all
    Server::Person.delete_all
    heard(false)
  end

  def password = "ferry at low tide"

  # Until all web processes have heard whether there are accounts.
  def heard(asked)
    told = -> { JSON.parse(Net::HTTP.get(URI("#{Capybara.app_host}/api/here")))["asked"] }
    sleep 0.1 until Array.new(12) { told.call }.uniq == [asked]
  end

  def cut
    @cut ||= begin
      project = Server::Project.create!(name: "Company #{SecureRandom.hex(3)}", width: 480, height: 270)
      FileUtils.cp(File.join(Server::ROOT, "demo/media/heron/H014/H014_1B.mov"), File.join(MEDIA, "company.mov"))
      clip = Server::Intake::Taking.new(project, Server::MediaRoot.configure(MEDIA)).call("company.mov")
      Server::Cut.create_named!(project, "Shared").tap { |made| made.add([0, 8].each_with_index.map { |at, position| {clip:, name: "S#{position + 1}", position:, source_in: at, record_in: at, length: 8} }) }
    end
  end

  def address = "/projects/#{cut.project_id}/cuts/#{cut.id}/bench"

  def enter(name)
    visit address
    fill_in "name", with: name
    fill_in "password", with: "not #{password}"
    click_button "Sign in"
    expect(page).to have_css("[role=alert]", text: "do not belong together")
    fill_in "password", with: password
    click_button "Sign in"
    settle
  end

  def ida(&) = Capybara.using_session(:default, &)

  def bo(&) = Capybara.using_session(:bo, &)

  # What the numbers of the open step say.
  def shown(numbers) = numbers.each { |name, value| expect(page).to have_css("[role=spinbutton][aria-label=#{name}][aria-valuenow='#{value}']") }

  it "work on one recipe and one family, see each other, and undo their own" do
    ida { enter("Ida Rooke") }
    bo { enter("Bo Larch") }
    ida do
      click_button "Begin with Balance"
      type_number("exposure", "1")
    end
    bo do
      shown("exposure" => 1) # within a second, by itself
      expect(page).to have_css("[data-test=hand]", text: "Ida Rooke has a")
      expect(page).to have_css("[data-shot] [data-test=who-is-at]", text: "IR")
      type_number("tint", "5")
    end
    ida do
      shown("exposure" => 1, "tint" => 5)
      click_button "undo"
      shown("exposure" => 0, "tint" => 5) # Bo's stays
      click_button "redo"
      shown("exposure" => 1, "tint" => 5)
    end
    bo do
      shown("exposure" => 1)
      type_number("exposure", "2")
    end
    ida do
      shown("exposure" => 2)
      click_button "undo"
      expect(page).to have_text("Bo Larch has gone on from there")
      press("e") # another shot
      click_button "Begin with Balance"
      type_number("exposure", "-1")
      until_stored("exposure") { cut.shots.reload.last.recipe.document.dig("steps", 0, "parameters", "exposure") == -1 }
    end
    family = Server::Present.set(sign_in: Server::SignIn.joins(:person).find_by!(people: {name: "Ida Rooke"})) { Server::Family.form(cut.reload, name: "Pair", members: cut.shots.to_a, words: "family Pair") }
    bo do
      expect(page).to have_button("Pair") # the family has come here
      click_button "undo" # Bo's exposure, below Ida's change of the other shot
      until_stored("exposure") { cut.shots.reload.first.recipe.document.dig("steps", 0, "parameters", "exposure") == 1 }
      shown("exposure" => 1, "tint" => 5)
    end
    expect(cut.shots.reload.last.recipe.document.dig("steps", 0, "parameters", "exposure")).to eq(-1)
    expect(family.reload.shots.size).to eq(2)
    bo do
      click_button "history"
      expect(page).to have_css("button", text: /S2.*Ida Rooke/m)
    end
  end

  it "sends a link; who looks leaves a note with a mark, which is answered and closed beside the shots" do
    ida do
      enter("Ida Rooke")
      press([:shift, "w"])
      click_button "send a link…"
      fill_in "who the link is for", with: "the producer"
      click_button "make link"
      @link = find("input[aria-label='address of the link']").value
    end
    bo do # not signed in
      visit URI(@link).path
      expect(page).to have_no_css("[data-test=rendering]", wait: 60)
      click_button "play"
      expect(page).to have_css("[data-test=time]", text: /:15\z/)
      press(:Left)
      click_button "an area"
      drag("svg[aria-label=marks]", dx: 120, dy: 80)
      fill_in "the note", with: "the hat is too bright"
      fill_in "your name", with: "Orla Finch"
      click_button "Leave note"
      expect(page).to have_css("[data-note]", text: "the hat is too bright")
      visit "/projects/#{cut.project_id}/cuts/#{cut.id}/bench"
      expect(page).to have_css("form[aria-label='sign in']")
    end
    note = Server::Note.last
    expect(note).to have_attributes(by: "Orla Finch", frame: 14, mark: include("kind" => "box"))
    expect(note.mark["to"][0] - note.mark["from"][0]).to be > 0.1
    ida do
      expect(page).to have_css("[data-test=note-count]", text: "1")
      find("[data-note]").find("button", match: :first).click
      expect(page).to have_css("[data-mark=box]")
      fill_in "answer to Orla Finch", with: "half a stop less"
      press(:Enter)
      until_stored("answer") { note.answers.reload.any? }
      expect(page).to have_css("[data-note]", text: "half a stop less") # it moves what stands below
      click_button "close"
      expect(page).to have_no_css("[data-test=note-count]")
    end
    expect(note.reload.closed_at).not_to be_nil
  end
end
