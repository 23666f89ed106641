# frozen_string_literal: true

# Accounts, who is signed in, who is where, and what lookers say.
class LetPeopleIn < ActiveRecord::Migration[7.1]
  def change
    create_table :people do |t|
      t.text :name, :initials, :role, :secret, null: false
      t.boolean :ended, null: false, default: false
      t.timestamps
      t.index "lower(name)", unique: true, name: "people_name_once"
      t.check_constraint "role IN ('look', 'grade', 'deliver', 'administer')", name: "people_role"
      t.check_constraint "char_length(name) BETWEEN 1 AND 60", name: "people_name"
      t.check_constraint "char_length(initials) BETWEEN 1 AND 3", name: "people_initials"
    end
    create_table :sign_ins do |t|
      t.references :person, null: false, foreign_key: {on_delete: :cascade}
      t.text :mark, null: false, index: {unique: true}
      t.text :address, :browser, null: false
      t.datetime :seen_at, null: false
      t.timestamps
    end
    create_table :tries, id: false do |t|
      t.text :key, null: false, index: {unique: true}
      t.integer :count, null: false
      t.datetime :since, :again_at, null: false
    end
    add_reference :changes, :person, foreign_key: {on_delete: :nullify}
    add_reference :changes, :takes_back, foreign_key: {to_table: :changes, on_delete: :nullify}
    create_table :presences do |t|
      t.text :window, null: false, index: {unique: true}
      t.references :person, foreign_key: {on_delete: :cascade}
      t.references :project, :cut, null: true, foreign_key: {on_delete: :cascade}
      t.references :shot, :recipe, null: true, foreign_key: {on_delete: :cascade}
      t.text :room, null: false
      t.datetime :touched_at
      t.datetime :seen_at, null: false, index: true
    end
    add_index :recipes, :updated_at
    add_column :projects, :turn, :bigint, null: false, default: 0
    create_table :reviews do |t|
      t.references :cut, null: false, foreign_key: {on_delete: :cascade}
      t.references :person, foreign_key: {on_delete: :nullify}
      t.text :name, :mark, null: false
      t.integer :first, :count, null: false
      t.datetime :ends_at
      t.timestamps
      t.index :mark, unique: true
      t.check_constraint "first >= 0 AND count > 0", name: "reviews_stretch"
    end
    create_table :notes do |t|
      t.references :cut, null: false, foreign_key: {on_delete: :cascade}
      t.references :shot, :review, null: true, foreign_key: {on_delete: :nullify}
      t.references :person, foreign_key: {on_delete: :nullify}
      t.references :answers, foreign_key: {to_table: :notes, on_delete: :cascade}
      t.text :by, :words, null: false
      t.integer :frame, :source, null: false
      t.jsonb :mark
      t.datetime :closed_at
      t.timestamps
      t.check_constraint "char_length(words) BETWEEN 1 AND 2000", name: "notes_words"
      t.check_constraint "char_length(by) BETWEEN 1 AND 60", name: "notes_by"
    end
  end
end
