# frozen_string_literal: true

# Cuts that are made and mended: speeds, wipes, links, slates for footage that is not there, shots that have left
# the cut, and a programme that lies under it. Clips that were taken in before stay stretched to the project's raster.
class MakeCuts < ActiveRecord::Migration[7.1]
  def up
    remove_index :shots, %i[cut_id position]
    change_column_null :shots, :position, true
    execute "ALTER TABLE shots ADD CONSTRAINT shots_place UNIQUE (cut_id, position) DEFERRABLE INITIALLY DEFERRED"
    change_table :shots, bulk: true do |t|
      t.float :speed, null: false, default: 1.0
      t.float :phase, null: false, default: 0.0
      t.integer :wipe
      t.integer :clock, null: false, default: 0
      t.text :link
    end
    change_column_null :clips, :media_root_id, true
    %w[clips_status clips_reason].each { |name| remove_check_constraint :clips, name: }
    change_table :clips, bulk: true do |t|
      t.text :fit, null: false, default: "stretch"
      t.references :filled_by, foreign_key: {to_table: :clips, on_delete: :nullify}
      t.integer :filled_shift
      t.text :filled_rule
      t.check_constraint "status IN ('ready', 'refused', 'missing', 'black')", name: "clips_status"
      t.check_constraint "status <> 'refused' OR reason IS NOT NULL", name: "clips_reason"
      t.check_constraint "(status IN ('missing', 'black')) = (media_root_id IS NULL)", name: "clips_place"
      t.check_constraint "fit IN ('stretch', 'inside', 'fill')", name: "clips_fit"
    end
    change_column_default :clips, :fit, "inside"
    change_table :cuts, bulk: true do |t|
      t.integer :edition, null: false, default: 0
      t.references :reference_clip, foreign_key: {to_table: :clips, on_delete: :nullify}
      t.integer :reference_offset, null: false, default: 0
    end
    add_column :orders, :baked, :boolean, null: false, default: false
    add_reference :revisions, :cut, foreign_key: {on_delete: :cascade}
    remove_check_constraint :revisions, name: "revisions_subject"
    add_check_constraint :revisions, "num_nonnulls(recipe_id, shot_id, wash_id, project_id, clip_id, family_id, cut_id) = 1", name: "revisions_subject"
  end

  def down
    execute "DELETE FROM revisions WHERE cut_id IS NOT NULL"
    remove_check_constraint :revisions, name: "revisions_subject"
    remove_reference :revisions, :cut
    add_check_constraint :revisions, "num_nonnulls(recipe_id, shot_id, wash_id, project_id, clip_id, family_id) = 1", name: "revisions_subject"
    remove_column :orders, :baked
    remove_columns :cuts, :edition, :reference_clip_id, :reference_offset
    execute "DELETE FROM clips WHERE media_root_id IS NULL"
    %w[clips_place clips_status clips_reason].each { |name| remove_check_constraint :clips, name: }
    remove_columns :clips, :fit, :filled_by_id, :filled_shift, :filled_rule
    add_check_constraint :clips, "status IN ('ready', 'refused')", name: "clips_status"
    add_check_constraint :clips, "status = 'ready' OR reason IS NOT NULL", name: "clips_reason"
    change_column_null :clips, :media_root_id, false
    remove_columns :shots, :speed, :phase, :wipe, :clock, :link
    execute "ALTER TABLE shots DROP CONSTRAINT shots_place"
    execute "DELETE FROM shots WHERE position IS NULL"
    change_column_null :shots, :position, false
    add_index :shots, %i[cut_id position], unique: true
  end
end
