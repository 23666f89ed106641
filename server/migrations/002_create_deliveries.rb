# frozen_string_literal: true

# Orders, their outputs, and the queue that works on them.
class CreateDeliveries < ActiveRecord::Migration[7.1]
  def up
    create_table :orders do |t|
      t.references :cut, null: false, foreign_key: {on_delete: :cascade}
      t.text :template, null: false
      t.timestamps
    end

    create_table :outputs do |t|
      t.references :order, null: false, foreign_key: {on_delete: :cascade}
      t.references :shot, foreign_key: {on_delete: :nullify}
      t.text :kind, null: false
      t.text :path, null: false, index: {unique: true, where: "status IN ('waiting', 'running', 'done')"}
      t.text :status, null: false, default: "waiting"
      t.integer :first, :frames, null: false
      t.integer :done, null: false, default: 0
      t.text :message
      t.boolean :cancelling, null: false, default: false
      t.timestamp :started_at, :finished_at
      t.timestamps
      t.check_constraint "status IN ('waiting', 'running', 'done', 'cancelled', 'failed')", name: "outputs_status"
      t.check_constraint "first >= 0 AND frames > 0 AND done BETWEEN 0 AND frames", name: "outputs_frames"
      t.check_constraint "path NOT LIKE '/%'", name: "outputs_path"
    end

    Que.connection = ActiveRecord
    Que.migrate!(version: 7)
  end

  def down
    Que.migrate!(version: 0)
    drop_table :outputs
    drop_table :orders
  end
end
