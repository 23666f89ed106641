# frozen_string_literal: true

require "tmpdir"
require "fileutils"

# bin/test sets MORDANT_DATABASE to a database of its own.
VAR = Dir.mktmpdir("mordant-spec")
ENV["MORDANT_VAR"] = VAR
ENV["MORDANT_CACHE_MB"] ||= "200"
require_relative "../lib/server"
require "rack/test"

Server::LOADER.eager_load
Mordant::LOADER.eager_load
Server::Database.ready
Dir[File.join(__dir__, "support/*.rb")].sort.each { |file| require file }
require_relative "../../core/spec/support/footage"
require_relative "../../core/spec/support/frames"

RSpec.configure do |config|
  config.disable_monkey_patching!
  config.order = :random
  config.include Api, type: :request
  config.before(:each) { Emptied.call }
  config.around(:each) do |example|
    Dir.mktmpdir { |folder| @folder = File.realpath(folder) and example.run }
  end
  config.after(:suite) { FileUtils.rm_rf(VAR) }
end
