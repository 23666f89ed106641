# frozen_string_literal: true

# Which shots of an output a lattice may stand in for, and how the findings of parts are kept.
class KeepLattices < ActiveRecord::Migration[7.1]
  def up
    add_column :outputs, :lattices, :jsonb, null: false, default: {}
    # what is not done is looked through again, as its parts and findings are kept in another way
    execute <<~SQL
      UPDATE parts SET found = '{}', status = 'waiting', done = 0
      WHERE EXISTS (SELECT FROM outputs WHERE outputs.order_id = parts.order_id AND outputs.shot_id IS NOT DISTINCT FROM parts.shot_id
                    AND outputs.status NOT IN ('done', 'cancelled'))
    SQL
  end

  def down = remove_column(:outputs, :lattices)
end
