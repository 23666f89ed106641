# frozen_string_literal: true

$LOAD_PATH.unshift(File.expand_path("../lib", __dir__))
require "mordant"
require "tmpdir"
Mordant::LOADER.eager_load
Dir[File.join(__dir__, "support/*.rb")].sort.each { |file| require file }

RSpec.configure do |config|
  config.disable_monkey_patching!
  config.order = :random
  Kernel.srand config.seed
  config.mock_with(:rspec) { |mocks| mocks.verify_partial_doubles = true }
  config.around(:each, :folder) do |example|
    Dir.mktmpdir { |folder| @folder = folder and example.run }
  end
end
