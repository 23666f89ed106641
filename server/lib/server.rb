# frozen_string_literal: true

require "bundler/setup"
$LOAD_PATH.unshift(File.expand_path("../../core/lib", __dir__))
require "mordant"
require "active_record"
require "pg"
require "que"
require "securerandom"
require "sinatra/base"

# Routes, data and long work around the core. It parses, asks the core and
# answers; it computes no pixel.
module Server
  LOADER = Zeitwerk::Loader.new
  LOADER.push_dir(__dir__)
  %w[models routes jobs].each { |folder| LOADER.collapse(File.join(__dir__, "server", folder)) }
  LOADER.setup

  # What is written here is its owner's, unless a folder says otherwise.
  File.umask(0o077)

  # The checkout.
  ROOT = File.expand_path("../..", __dir__)

  Mordant::Library.root = Settings.library
end
