# frozen_string_literal: true

require_relative "lib/server"
Server::LOADER.eager_load
Mordant::LOADER.eager_load
Server::Database.connect
Puma::Client.prepend(Server::HeadFirst)
use Server::Memory::Counting
run Server::App
