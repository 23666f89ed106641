# frozen_string_literal: true

# Corrections of renditions, a recipe for each shot that has some; and what was measured of shots.
class MakeRenditions < ActiveRecord::Migration[7.1]
  BEFORE = "num_nonnulls(shot_id, wash_id, family_id) = 1 AND (family_id IS NULL) = (place IS NULL)"
  AFTER = "num_nonnulls(shot_id, wash_id, family_id, corrects_id) = 1 AND (family_id IS NULL) = (place IS NULL)"

  def up
    add_reference :recipes, :corrects, foreign_key: {to_table: :shots, on_delete: :cascade}, index: {unique: true}
    remove_check_constraint :recipes, name: "recipes_owner"
    add_check_constraint :recipes, AFTER, name: "recipes_owner"
    create_table :statistics do |t|
      t.references :shot, null: false, foreign_key: {on_delete: :cascade}, index: {unique: true}
      t.text :digest, null: false
      t.jsonb :document, null: false
      t.text :copied_from
      t.timestamps
    end
  end

  def down
    drop_table :statistics
    execute "DELETE FROM revisions WHERE recipe_id IN (SELECT id FROM recipes WHERE corrects_id IS NOT NULL)"
    execute "DELETE FROM recipes WHERE corrects_id IS NOT NULL"
    remove_check_constraint :recipes, name: "recipes_owner"
    add_check_constraint :recipes, BEFORE, name: "recipes_owner"
    remove_reference :recipes, :corrects
  end
end
