# frozen_string_literal: true

# Families of shots: steps that run before each member's own, and after them.
class FormFamilies < ActiveRecord::Migration[7.1]
  OWNERS = "num_nonnulls(shot_id, wash_id, family_id) = 1 AND (family_id IS NULL) = (place IS NULL)"
  SUBJECTS = "num_nonnulls(recipe_id, shot_id, wash_id, project_id, clip_id, family_id) = 1"

  def up
    create_table :families do |t|
      t.references :cut, null: false, foreign_key: {on_delete: :cascade}
      t.references :hero_shot, foreign_key: {to_table: :shots, on_delete: :nullify}
      t.text :name, null: false
      t.timestamps
      t.check_constraint "length(btrim(name)) BETWEEN 1 AND 60", name: "families_name"
    end
    add_reference :shots, :family, foreign_key: {on_delete: :nullify}
    add_reference :recipes, :family, foreign_key: {on_delete: :cascade}
    add_column :recipes, :place, :text
    add_index :recipes, %i[family_id place], unique: true
    remove_check_constraint :recipes, name: "recipes_owner"
    add_check_constraint :recipes, OWNERS, name: "recipes_owner"
    add_check_constraint :recipes, "place IN ('ground', 'finish')", name: "recipes_place"
    add_reference :revisions, :family, foreign_key: {on_delete: :cascade}
    remove_check_constraint :revisions, name: "revisions_subject"
    add_check_constraint :revisions, SUBJECTS, name: "revisions_subject"
  end

  def down
    execute "DELETE FROM revisions WHERE family_id IS NOT NULL OR recipe_id IN (SELECT id FROM recipes WHERE family_id IS NOT NULL)"
    remove_check_constraint :revisions, name: "revisions_subject"
    remove_column :revisions, :family_id
    add_check_constraint :revisions, "num_nonnulls(recipe_id, shot_id, wash_id, project_id, clip_id) = 1", name: "revisions_subject"
    execute "DELETE FROM recipes WHERE family_id IS NOT NULL"
    %w[recipes_owner recipes_place].each { |name| remove_check_constraint :recipes, name: }
    remove_columns :recipes, :family_id, :place
    add_check_constraint :recipes, "num_nonnulls(shot_id, wash_id) = 1", name: "recipes_owner"
    remove_column :shots, :family_id
    drop_table :families
  end
end
