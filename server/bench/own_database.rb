# frozen_string_literal: true

require "tmpdir"
require_relative "../supervisor/cluster"

# A database of its own for a benchmark, in a folder that goes with it.
module OwnDatabase
  # @yieldparam cluster [Supervisor::Cluster] Mordant is loaded and connected
  def self.open
    Dir.mktmpdir("mordant-bench") do |var|
      cluster = Supervisor::Cluster.new(folder: File.join(var, "postgres"))
      cluster.start
      ENV.update("MORDANT_VAR" => var, "MORDANT_DATABASE" => cluster.address("mordant"))
      require_relative "../lib/server"
      Server::LOADER.eager_load
      Mordant::LOADER.eager_load
      Server::Database.ready
      yield cluster
    ensure
      ActiveRecord::Base.connection_handler.clear_all_connections! if defined?(ActiveRecord)
      cluster&.stop
    end
  end
end
