# frozen_string_literal: true

require "fileutils"

module Server
  # The connection to PostgreSQL and its schema.
  module Database
    MIGRATIONS = File.join(ROOT, "server/migrations")

    module_function

    # @param pool [Integer] connections this process may hold
    def connect(pool: 20)
      ActiveRecord::Base.establish_connection(adapter: "postgresql", **parameters, pool:)
      ActiveRecord.default_timezone = :utc
      Que.connection = ActiveRecord
    end

    LOOK_EVERY = 1 # seconds

    # Until it answers; says once that it does not.
    def wait
      said = false
      begin
        ActiveRecord::Base.connection_pool.with_connection { |connection| connection.select_value("SELECT 1") }
      rescue *Trouble::KINDS => e
        raise unless Trouble.of(e)

        warn("waiting for the database: #{e.message.lines.first}") unless said
        said = true
        sleep LOOK_EVERY
        retry
      end
    end

    # The database itself, if it is not there yet.
    def create
      name = parameters.fetch(:database)
      ActiveRecord::Base.establish_connection(adapter: "postgresql", **parameters, database: "postgres")
      known = ActiveRecord::Base.connection.select_value(
        ActiveRecord::Base.sanitize_sql(["SELECT 1 FROM pg_database WHERE datname = ?", name])
      )
      ActiveRecord::Base.connection.create_database(name, encoding: "UTF8", template: "template0") unless known
      ActiveRecord::Base.connection_pool.disconnect!
    end

    # All that has to be there before anything is stored: folders, the database, its schema; and a connection.
    def ready
      FileUtils.mkdir_p([Settings.delivery, Settings.cache])
      create
      connect
      migrate
    end

    def migrate
      ActiveRecord::Migration.verbose = false
      ActiveRecord::MigrationContext.new(MIGRATIONS).migrate
    end

    # @return [Hash] host, port, database, username and password of Settings.database
    def parameters
      uri = URI.parse(Settings.database)
      {host: uri.host, port: uri.port, database: uri.path.delete_prefix("/"), username: uri.user, password: uri.password}.compact
    end
  end
end
