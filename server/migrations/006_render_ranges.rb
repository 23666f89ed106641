# frozen_string_literal: true

# Ranges of cuts rendered ahead of playing them.
class RenderRanges < ActiveRecord::Migration[7.1]
  def change
    create_table :range_renders do |t|
      t.references :cut, null: false, foreign_key: {on_delete: :cascade}
      t.integer :first, :count, null: false
      t.integer :done, null: false, default: 0
      t.jsonb :screen, null: false, default: {}
      t.text :status, null: false, default: "waiting"
      t.text :message
      t.timestamps
      t.check_constraint "first >= 0 AND count > 0 AND done BETWEEN 0 AND count", name: "range_renders_frames"
      t.check_constraint "status IN ('waiting', 'running', 'done', 'cancelled', 'failed')", name: "range_renders_status"
    end
  end
end
