# frozen_string_literal: true

# Reference pictures, brought in or frozen; flags on shots, and the frame that stands for
# each; what the pictures of swatches are in.
class KeepStills < ActiveRecord::Migration[7.1]
  COLOURS = "'madder', 'weld', 'woad', 'orchil', 'walnut'"

  def change
    create_table :stills do |t|
      t.references :project, null: false, foreign_key: {on_delete: :cascade}
      t.text :name, null: false
      t.text :encoding, null: false
      t.jsonb :origin, null: false, default: {}
      t.timestamps
      t.check_constraint "length(btrim(name)) BETWEEN 1 AND 120", name: "stills_name"
    end
    add_column :swatches, :encoding, :text, null: false, default: "rec709-bt1886"
    change_table :shots, bulk: true do |t|
      t.text :flag
      t.text :note, null: false, default: ""
      t.integer :poster
      t.integer :worked
    end
    add_check_constraint :shots, "flag IN (#{COLOURS})", name: "shots_flag"
    add_check_constraint :shots, "length(note) <= 500", name: "shots_note"
    add_check_constraint :shots, "coalesce(poster, 0) >= 0 AND coalesce(worked, 0) >= 0", name: "shots_posters"
  end
end
