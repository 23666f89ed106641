# frozen_string_literal: true

# Screens that people grade on, how each was measured and what corrects it.
class MeasureScreens < ActiveRecord::Migration[7.1]
  LIVE = "status IN ('waiting', 'running', 'paused')"

  def up
    remove_check_constraint :projects, name: "projects_canvas"
    add_check_constraint :projects, "canvas IN ('2.4', '2.2', 'srgb', 'p3')", name: "projects_canvas"
    create_table :screens do |t|
      t.text :name, null: false, index: {unique: true}
      t.text :kind, null: false
      t.text :screen_address, :probe_address, null: false, default: ""
      t.jsonb :settings, null: false, default: {}
      t.integer :days, null: false, default: 30
      t.timestamps
      t.check_constraint "kind IN ('control', 'reference')", name: "screens_kind"
      t.check_constraint "char_length(name) BETWEEN 1 AND 80", name: "screens_name"
      t.check_constraint "days BETWEEN 1 AND 3650", name: "screens_days"
    end
    create_table :calibrations do |t|
      t.references :screen, null: false, foreign_key: {on_delete: :cascade}
      t.references :through, foreign_key: {to_table: :calibrations, on_delete: :nullify}
      t.text :status, null: false, default: "waiting"
      t.jsonb :settings, null: false
      t.text :phase, :message, :cube
      t.jsonb :showing, :report, :figures
      t.jsonb :journal, null: false, default: {}
      t.integer :count, :done, null: false, default: 0
      t.datetime :ended_at
      t.timestamps
      t.check_constraint "status IN ('waiting', 'running', 'paused', 'done', 'cancelled', 'failed')", name: "calibrations_status"
      t.index :screen_id, unique: true, where: LIVE, name: "calibrations_live"
    end
    add_reference :screens, :loaded, foreign_key: {to_table: :calibrations, on_delete: :nullify}
  end

  def down
    remove_reference :screens, :loaded
    drop_table :calibrations
    drop_table :screens
    execute "UPDATE projects SET canvas = '2.4' WHERE canvas = 'p3'"
    remove_check_constraint :projects, name: "projects_canvas"
    add_check_constraint :projects, "canvas IN ('2.4', '2.2', 'srgb')", name: "projects_canvas"
  end
end
