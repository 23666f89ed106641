# frozen_string_literal: true

# Empties all tables row by row: of tables that hold little that is far quicker than truncating them.
module Emptied
  module_function

  # @return [void]
  def call
    connection = ActiveRecord::Base.connection
    tables = connection.tables - %w[schema_migrations ar_internal_metadata]
    connection.execute(<<~SQL)
      SET session_replication_role = replica; -- no order among them, and no triggers
      #{tables.map { |table| %(DELETE FROM "#{table}";) }.join("\n")}
      SELECT setval(format('%I.%I', schemaname, sequencename)::regclass, start_value, false) FROM pg_sequences WHERE last_value IS NOT NULL;
      SET session_replication_role = DEFAULT;
    SQL
  end
end
