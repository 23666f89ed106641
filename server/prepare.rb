# frozen_string_literal: true

# Before anything is served: the database and its schema, the media folders, the
# demo production. Arguments are media folders; --demo loads the demo.
require_relative "lib/server"

folders = ARGV.dup
demo = folders.delete("--demo")
Server::LOADER.eager_load
Server::Database.ready
folders.each { |folder| Server::MediaRoot.configure(folder) }
if Server::Settings.beyond? && !Server::Person.exists?
  abort("start: others can reach #{Server::Settings.bind}, so somebody has to have an account first: bin/account add NAME --role administer")
end
if demo && Server::Demo.load
  puts "loaded the demo production"
end
