# frozen_string_literal: true

require_relative "lib/server"
require "io/console"

Server::LOADER.eager_load
Server::Database.ready
exit Server::AccountCommand.new.call(ARGV)
