# frozen_string_literal: true

# Washes over stretches of a cut, whose steps are recipes as those of shots are; and a
# history of everything that can be taken back, not of recipes alone.
class LayWashes < ActiveRecord::Migration[7.1]
  SUBJECTS = %w[recipe_id shot_id wash_id project_id clip_id].freeze

  def up
    create_table :washes do |t|
      t.references :cut, null: false, foreign_key: {on_delete: :cascade}
      t.references :from_shot, foreign_key: {to_table: :shots, on_delete: :nullify}
      t.references :to_shot, foreign_key: {to_table: :shots, on_delete: :nullify}
      t.text :name, null: false
      t.boolean :enabled, null: false, default: true
      t.boolean :laid, null: false, default: false
      t.timestamps
      t.check_constraint "length(btrim(name)) BETWEEN 1 AND 60", name: "washes_name"
    end
    change_column_null :recipes, :shot_id, true
    add_reference :recipes, :wash, foreign_key: {on_delete: :cascade}, index: {unique: true}
    add_check_constraint :recipes, "num_nonnulls(shot_id, wash_id) = 1", name: "recipes_owner"

    change_column_null :revisions, :recipe_id, true
    change_table :revisions do |t|
      t.references :shot, foreign_key: {on_delete: :cascade}
      t.references :wash, foreign_key: {on_delete: :cascade}
      t.references :project, foreign_key: {on_delete: :cascade}
      t.references :clip, foreign_key: {on_delete: :cascade}
      t.check_constraint "num_nonnulls(#{SUBJECTS.join(", ")}) = 1", name: "revisions_subject"
    end
    execute "UPDATE revisions SET before = jsonb_build_object('document', before), after = jsonb_build_object('document', after)"
  end

  def down
    execute "DELETE FROM revisions WHERE recipe_id IS NULL OR recipe_id IN (SELECT id FROM recipes WHERE wash_id IS NOT NULL)"
    execute "UPDATE revisions SET before = before -> 'document', after = after -> 'document'"
    remove_check_constraint :revisions, name: "revisions_subject"
    (SUBJECTS - %w[recipe_id]).each { |column| remove_column :revisions, column }
    change_column_null :revisions, :recipe_id, false
    execute "DELETE FROM recipes WHERE wash_id IS NOT NULL"
    remove_check_constraint :recipes, name: "recipes_owner"
    remove_column :recipes, :wash_id
    change_column_null :recipes, :shot_id, false
    drop_table :washes
  end
end
