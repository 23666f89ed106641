# frozen_string_literal: true

# One process a core, as array maths holds Ruby's lock; threads for the requests
# that wait.
require "etc"

workers Integer(ENV["MORDANT_WEB_PROCESSES"] ||= [Etc.nprocessors, 2].max.to_s) # see Settings
threads 2, 16
certificate, key = ENV["MORDANT_TLS"]&.split(",")
host = ENV.fetch("MORDANT_BIND", "127.0.0.1").then { |address| address.include?(":") ? "[#{address}]" : address }
if certificate
  bind "ssl://#{host}:#{ENV.fetch("MORDANT_PORT")}?cert=#{certificate}&key=#{key}&no_tlsv1=true&no_tlsv1_1=true"
else
  bind "tcp://#{host}:#{ENV.fetch("MORDANT_PORT")}"
end
# What comes by a connection that is kept goes to the process that has it, and waits there while another one is free. A new one costs little, but
# for TLS.
enable_keep_alives !certificate.nil?
quiet
environment "production"
preload_app!
silence_single_worker_warning
before_fork do
  ActiveRecord::Base.connection_handler.clear_all_connections!
  ::Mordant::Pointwise::Compiler.here? # loads it once for all
end
on_worker_boot do
  ::Server::Database.connect
  ::Mordant::Pointwise::Together.count = [Etc.nprocessors, 16].min # a picture has 17 parts that are worth a thread
  ::Server::Pictures::Nearby.current = ::Server::Pictures::Nearby.new(::Server::Pictures::Desk.current.store)
  ::Mordant::Media::Waiting.keep(2)
  ::Server::Memory.current.watch { Process.kill("TERM", Process.pid) }
end
force_shutdown_after 2
