#!/usr/bin/env ruby
# frozen_string_literal: true

# Takes the pictures of the main views anew, from the demo production as
# bin/start has just loaded it:
#
#   bundle exec ruby docs/screenshots/take.rb [http://127.0.0.1:4680]

require "capybara/cuprite"

ADDRESS = ARGV.first || "http://127.0.0.1:4680"
Capybara.enable_aria_label = true
Capybara.default_max_wait_time = 15
Capybara.register_driver(:chromium) do |app|
  Capybara::Cuprite::Driver.new(app, browser_path: "/usr/bin/chromium", window_size: [1280, 800], headless: true, process_timeout: 60,
    browser_options: {"no-sandbox" => nil, "disable-gpu" => nil, "disable-background-networking" => nil})
end
PAGE = Capybara::Session.new(:chromium)

# What sets the demo's worst shots right, by the errors in its manifest.
GRADES = {
  "1C" => {"exposure" => "1.5", "temperature" => "-6", "contrast" => "1.08", "saturation" => "1.06"},
  "2B" => {"exposure" => "-1.2"},
  "2C" => {"temperature" => "49", "exposure" => "0.3"}
}.freeze

def take(name)
  sleep 0.5
  PAGE.save_screenshot(File.join(__dir__, "#{name}.png"))
end

def type(label, text)
  PAGE.find("[role=spinbutton][aria-label='#{label}']").click
  PAGE.find("input[aria-label='#{label}, typed']")
  PAGE.driver.browser.keyboard.type(text, :Enter)
end

def settle
  sleep 0.3
  PAGE.find("[data-settled=true]", match: :first)
end

def go_to_shot(name)
  PAGE.find("[role=option]", text: name).click
  settle
end

PAGE.visit(ADDRESS)
PAGE.click_link("Grade Cut 1")
settle
GRADES.each do |shot, numbers|
  go_to_shot(shot)
  PAGE.click_button("Begin with Balance") if PAGE.has_button?("Begin with Balance", wait: 1)
  numbers.each { |label, text| type(label, text) }
  settle
end
go_to_shot("1C")
PAGE.find("[role=slider][aria-label='light, high (gain)']").send_keys(:up, :up)
settle
take("bench")
# Where a share of the picture lies on the page.
def at(x, y)
  left, top, width, height = PAGE.evaluate_script("(() => { const r = document.querySelector('section[aria-label=picture] canvas').getBoundingClientRect(); return [r.x, r.y, r.width, r.height] })()")
  scale = [width / 960.0, height / 540.0].min
  {x: left + width / 2 + (x - 0.5) * 960 * scale, y: top + height / 2 + (y - 0.5) * 540 * scale}
end

def click_at(x, y, *keys)
  PAGE.driver.browser.mouse.click(**at(x, y), modifiers: PAGE.driver.browser.keyboard.modifiers(keys))
  sleep 1
  settle
end

go_to_shot("1D")
PAGE.click_button("Begin with Balance")
PAGE.click_button("acts on")
PAGE.click_button("+ key")
PAGE.find("[data-test=pick-key]").click
{[0.82, 0.06] => [], [0.55, 0.68] => [:shift], [0.5, 0.80] => [:shift], [0.75, 0.85] => [:alt]}.each { |place, keys| click_at(*place, *keys) }
PAGE.driver.browser.keyboard.type(:Escape)
PAGE.click_button("show")
settle
take("key")
PAGE.click_button("show")
go_to_shot("3C")
PAGE.driver.browser.keyboard.type([:shift, "o"])
mouse = PAGE.driver.browser.mouse
mouse.move(**at(0.345, 0.46))
mouse.down
mouse.move(**at(0.37, 0.55))
mouse.move(**at(0.40, 0.625))
mouse.up
PAGE.find("[role=menuitem]", text: "Lift a lamp").click
settle
PAGE.find("button", text: /\Aon/).click
PAGE.find("[data-test=path]", wait: 120)
24.times { PAGE.driver.browser.keyboard.type("d") }
settle
PAGE.click_button("what it does")
PAGE.driver.browser.keyboard.type("[")
field = PAGE.find("input[aria-label='fade in before']")
field.send_keys([:control, "a"], "8", :enter)
settle
type("exposure", "0.9")
PAGE.driver.browser.keyboard.type([:shift, "k"])
12.times { PAGE.driver.browser.keyboard.type("d") }
settle
type("exposure", "1.6")
PAGE.find("button[aria-label='key of exposure at frame 25']").click
PAGE.find("button[aria-label='easing after the key']").click
PAGE.find("[role=option]", exact_text: "smooth").click
PAGE.click_button("graph", exact: true)
settle
take("strip")
PAGE.click_button("graph", exact: true)
PAGE.driver.browser.keyboard.type([:shift, "s"])
PAGE.execute_script("localStorage.setItem('mordant.scopes', JSON.stringify({slots: [{kind: 'rgb', share: 0.27}, {kind: 'vectorscope', share: 0.23}, {kind: 'histogram', share: 0.22}, {kind: 'solid', share: 0.28}], height: 300}))")
PAGE.refresh
settle
go_to_shot("1C")
PAGE.driver.browser.keyboard.type("j")
settle
take("seeing")
PAGE.driver.browser.keyboard.type("j")
PAGE.click_button("instruments…")
PAGE.click_button("reset all")
settle
PAGE.driver.browser.keyboard.type("?")
PAGE.find("h2", text: "Keys in this room")
take("keys")
PAGE.click_button("Close")
PAGE.find("button", exact_text: "no family").click
PAGE.find("button", text: "of the scene").click
PAGE.find("section[aria-label^='ground of family']")
PAGE.driver.browser.keyboard.type(:Escape)
PAGE.driver.browser.keyboard.type("y")
PAGE.find("button[title^='Y: compare']").click
PAGE.click_button("side by side")
PAGE.find("[role=radio]", text: "shots away").click
PAGE.driver.browser.keyboard.type(:Escape)
sleep 1
PAGE.assert_selector("[data-settled=true]", minimum: 2, wait: 30)
take("compare")
PAGE.driver.browser.keyboard.type("y")
PAGE.click_link("Board")
sleep 2
PAGE.find("[aria-label='shot 2C']").click
PAGE.find("[aria-label='shot 2D']").click(:ctrl)
PAGE.find("[aria-label='shot 3A']").click(:ctrl)
PAGE.fill_in("note of the flag", with: "lamps too strong")
PAGE.find("button[aria-label='flag orchil']").click
sleep 2
take("board")
PAGE.click_button("none")
PAGE.find("[aria-label='shot 1C']").click
PAGE.click_link("Assembly")
PAGE.find("[data-row]", text: /\A\d+\s*2B/).click
PAGE.find("input[type=file][aria-label='cut list']", visible: :all).attach_file(File.expand_path("../../demo/salt_lantern_2.edl", __dir__))
PAGE.click_button("Compare with Cut 1")
PAGE.find("[data-test=counts]")
sleep 3
take("assembly")
PAGE.find("[data-row]", text: /\A\d+\s*1C/).click
PAGE.click_link("Pairing")
sleep 1
PAGE.find("[role=option]", text: "1D").click
sleep 1
PAGE.click_button("Match 1D to 1C")
PAGE.find("[data-test=alike]")
sleep 1
take("pairing")
PAGE.click_button("drop")
PAGE.click_link("Renditions")
PAGE.find("[role=option]", text: /\A3B/).click
PAGE.find("[data-test=levels]", wait: 60)
type("contrast", "1.15")
type("highlight detail", "40")
type("tone lights", "-2")
PAGE.assert_selector("[data-settled=true]", count: 2, wait: 30)
sleep 2
take("renditions")
PAGE.click_link("Intake")
PAGE.find("tr", text: "D207_1C.mov")
120.times { PAGE.evaluate_script("[...document.images].every((image) => image.complete)") ? break : sleep(0.25) }
PAGE.check("D207_1C.mov")
PAGE.click_button("Assign an encoding to 1")
take("intake")
PAGE.driver.browser.keyboard.type(:Escape)
PAGE.click_link("Dispatch")
PAGE.click_button("presets")
PAGE.find("[role=menuitem]", text: "Dailies").click
sleep 1
PAGE.click_button("Order 12 outputs")
PAGE.find("[data-status=done]", match: :first, wait: 400)
PAGE.click_button("presets")
PAGE.find("[role=menuitem]", text: "Television master").click
sleep 1
PAGE.click_button("more", match: :first)
PAGE.click_button("Order 2 outputs")
sleep 4
take("dispatch")
PAGE.click_link("Settings")
PAGE.click_button("+ target")
PAGE.find("section[aria-label='Target 5'] button[aria-label='encoding of the target']").click
PAGE.find("[role=option]", exact_text: "P3-D65 · gamma 2.6").click
PAGE.find("section[aria-label='Target 5'] button[aria-label='rendering of the target']").click
PAGE.find("[role=option]", exact_text: "ACES 1.0 · cinema 48 cd/m2").click
sleep 0.5
PAGE.find("section[aria-label='Target 5'] input").set("Cinema").send_keys(:tab)
PAGE.find("section[aria-label='Cinema']")
take("settings")
PAGE.click_link("Bench")
settle
go_to_shot("1C")
PAGE.find("button[aria-label='add a step to shot 1C']").click
PAGE.find("[role=menuitem]", text: "Ferry day").click
settle
PAGE.find("[data-bundle=Film] section[aria-label=Emulsion] button[aria-expanded]").click
PAGE.find("[role=switch]", text: "guides").click
settle
PAGE.execute_script("document.querySelector('[aria-label=\"bundle Film\"]').scrollIntoView({ block: 'start' })")
take("film")
go_to_shot("3A")
PAGE.find("button[aria-label='add a step to shot 3A']").click
PAGE.find("[role=menuitem]", text: /\ANoise/).click
{"luma" => "1", "colour" => "1", "frames" => "2"}.each { |label, text| type(label, text) }
PAGE.click_button("measure the shot")
PAGE.find("[data-test=noise-luma_0]", wait: 30)
PAGE.find("[role=switch]", text: "what it takes").click
settle
take("noise")
PAGE.find("nav[aria-label=rooms] a", text: "Screens").click
PAGE.click_button("Measure and correct")
PAGE.find("[data-test=de2000_mean-after]", text: /\d/, wait: 240)
PAGE.find("[role=option]", text: "verified today", wait: 30)
take("screens")
PAGE.visit(ADDRESS)
PAGE.click_link("Grade Finished")
settle
go_to_shot("2B")
PAGE.driver.browser.keyboard.type([:shift, "w"])
PAGE.find("aside[aria-label='notes of this cut']")
PAGE.fill_in("the note", with: "Bottle a little brighter, so that it is seen.")
PAGE.click_button("area")
mouse.move(**at(0.33, 0.6))
mouse.down
mouse.move(**at(0.37, 0.75))
mouse.move(**at(0.4, 0.86))
mouse.up
PAGE.click_button("add", exact: true)
PAGE.find("[data-note] button", text: "Bottle a little").click
settle
take("notes")
PAGE.click_button("send a link…")
PAGE.fill_in("who the link is for", with: "For the producer")
PAGE.click_button("make link")
link = PAGE.find("input[aria-label='address of the link']").value
PAGE.driver.browser.keyboard.type([:shift, "w"])
PAGE.visit(link)
PAGE.find("[data-note] button", match: :first).click
sleep 4
take("review")
PAGE.visit(ADDRESS)
sleep 3
take("start")
