# frozen_string_literal: true

# Outputs that are described by sheets and rendered together, part by part, by any worker.
class OrderSheets < ActiveRecord::Migration[7.1]
  OLD = {"exr-ap0" => ["exr-half", {encoding: "aces2065-1"}], "review-h264" => ["h264", {encoding: "rec709-bt1886", rendering: "sdr-video-1.0"}]}.freeze

  def up
    change_table :orders, bulk: true do |t|
      t.integer :priority, null: false, default: 100
      t.boolean :paused, null: false, default: false
      t.boolean :skip, null: false, default: false
      t.integer :handles, null: false, default: 0
    end
    change_table :outputs, bulk: true do |t|
      t.jsonb :sheet, null: false, default: {}
      t.jsonb :report
      t.text :stage
    end
    OLD.each do |kind, (format, view)|
      execute "UPDATE outputs SET kind = #{quote(format)}, sheet = #{quote({format:, view:}.to_json)}::jsonb WHERE kind = #{quote(kind)}"
    end
    create_table :parts do |t|
      t.references :order, null: false, foreign_key: {on_delete: :cascade}
      t.references :shot, foreign_key: {on_delete: :cascade}
      t.integer :first, :frames, null: false
      t.integer :done, null: false, default: 0
      t.text :status, null: false, default: "waiting"
      t.jsonb :found, null: false, default: {}
      t.timestamps
      t.check_constraint "status IN ('waiting', 'running', 'done', 'failed')", name: "parts_status"
      t.check_constraint "first >= 0 AND frames > 0 AND done BETWEEN 0 AND frames", name: "parts_frames"
    end
    create_table :order_presets do |t|
      t.text :name, null: false, index: {unique: true}
      t.jsonb :sheets, null: false
      t.timestamps
      t.check_constraint "length(btrim(name)) BETWEEN 1 AND 60", name: "order_presets_name"
    end
  end

  def down
    drop_table :order_presets
    drop_table :parts
    remove_columns :outputs, :sheet, :report, :stage
    remove_columns :orders, :priority, :paused, :skip, :handles
  end
end
