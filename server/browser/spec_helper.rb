# frozen_string_literal: true

require "tmpdir"
require "fileutils"
require "socket"

# The whole application as bin/start runs it, driven through a real browser.
VAR = Dir.mktmpdir("mordant-browser")
MEDIA = File.join(VAR, "cards")
PORT = TCPServer.open("127.0.0.1", 0) { |server| server.addr[1] }
ENV["MORDANT_VAR"] = VAR
FileUtils.mkdir_p(MEDIA)

require_relative "../supervisor/cluster"
require_relative "../supervisor/processes"
require_relative "../lib/server"
require "capybara/rspec"
require "capybara/cuprite"
Dir[File.join(__dir__, "support/*.rb")].sort.each { |file| require file }
Mordant::LOADER.eager_load

PROCESSES = Supervisor::Processes.new(log: File.join(VAR, "log"), workers: 2, environment: {
  "MORDANT_DATABASE" => ENV.fetch("MORDANT_DATABASE"), "MORDANT_PORT" => PORT.to_s, "MORDANT_VAR" => VAR
})

CHROMIUM = {
  "no-sandbox" => nil, "disable-gpu" => nil, "disable-quic" => nil, "no-first-run" => nil,
  "disable-background-networking" => nil, "disable-component-update" => nil, "disable-sync" => nil,
  "force-prefers-reduced-motion" => nil, # what pulses is drawn by the processors here
  "enable-unsafe-swiftshader" => nil # WebGL without a graphics processor, and without a warning about it
}.freeze
Capybara.register_driver(:chromium) do |app|
  Capybara::Cuprite::Driver.new(app, browser_path: "/usr/bin/chromium", window_size: [1280, 800], headless: true,
    process_timeout: 60, timeout: 60, js_errors: true, browser_options: CHROMIUM.dup, logger: Console.instance)
end
Capybara.run_server = false
Capybara.app_host = "http://127.0.0.1:#{PORT}"
Capybara.default_driver = Capybara.javascript_driver = :chromium
Capybara.default_max_wait_time = 30
Capybara.default_retry_interval = 0.05 # looking costs the browser as much as being looked at
Capybara.enable_aria_label = true
Capybara.save_path = ENV.fetch("MORDANT_LOG", VAR)

RSpec.configure do |config|
  config.disable_monkey_patching!
  config.include Capybara::DSL
  config.include Hand
  config.before(:suite) do
    PROCESSES.prepare(MEDIA)
    PROCESSES.start
    Server::Database.connect(pool: 3)
  end
  config.after(:suite) do
    PROCESSES.stop
    FileUtils.rm_rf(VAR)
  end
  config.after(:each) do |example|
    page.driver.render(File.join(Capybara.save_path, "failed-#{example.description.tr(" ", "-")}.png")) if example.exception
    complaints = Console.instance.complaints
    log = File.read(File.join(VAR, "log/web.log"))
    expect(complaints).to be_empty
    expect(log).not_to match(/Error|error:/)
  end
end
