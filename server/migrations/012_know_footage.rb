# frozen_string_literal: true

# What a clip's frames are, how a clip of another rate is taken, and small copies for playing.
class KnowFootage < ActiveRecord::Migration[7.1]
  def up
    change_table :clips, bulk: true do |t|
      t.boolean :variable, null: false, default: false
      t.jsonb :gaps, null: false, default: []
      t.text :pace, null: false, default: "frames"
      t.integer :file_frames
      t.boolean :rate_by_hand, null: false, default: false
      t.text :copying, null: false, default: "auto"
      t.text :copy_status, null: false, default: "none"
      t.integer :copy_done, null: false, default: 0
      t.float :decoding_speed
      t.check_constraint "pace IN ('frames', 'time')", name: "clips_pace"
      t.check_constraint "copying IN ('auto', 'always', 'never')", name: "clips_copying"
      t.check_constraint "copy_status IN ('none', 'waiting', 'making', 'ready', 'failed')", name: "clips_copy_status"
    end
    execute "UPDATE clips SET file_frames = frames"
    create_table :clip_indices do |t|
      t.references :clip, null: false, foreign_key: {on_delete: :cascade}, index: {unique: true}
      t.binary :bytes, null: false
    end
    add_column :projects, :fixed, :boolean, null: false, default: true
    add_column :cuts, :start, :text, null: false, default: "01:00:00:00"
  end

  def down
    remove_column :cuts, :start
    remove_column :projects, :fixed
    drop_table :clip_indices
    remove_columns :clips, :variable, :gaps, :pace, :file_frames, :rate_by_hand, :copying, :copy_status, :copy_done, :decoding_speed
  end
end
