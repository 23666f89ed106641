# frozen_string_literal: true

# What a job worker loads: que -w 1 server/worker.rb
require_relative "lib/server"
Server::LOADER.eager_load
Mordant::LOADER.eager_load
Server::Database.connect(pool: 6)
Server::Database.wait
