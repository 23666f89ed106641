# frozen_string_literal: true

require_relative "lib/server"
require "io/console"

Server::LOADER.eager_load
Server::Database.create
Server::Database.connect
Server::Database.migrate
exit Server::AccountCommand.new.call(ARGV)
