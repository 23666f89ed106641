# frozen_string_literal: true

# Grades that are kept with the picture they made, for any shot of any project.
class KeepSwatches < ActiveRecord::Migration[7.1]
  def change
    create_table :swatches do |t|
      t.text :name, null: false
      t.text :description, null: false, default: ""
      t.text :folder, null: false, default: ""
      t.jsonb :document, null: false
      t.jsonb :origin, null: false, default: {}
      t.integer :peg
      t.timestamps
      t.index :peg, unique: true
      t.check_constraint "peg BETWEEN 0 AND 9", name: "swatches_peg"
      t.check_constraint "length(btrim(name)) BETWEEN 1 AND 80 AND length(description) <= 2000 AND length(folder) <= 200", name: "swatches_texts"
      t.check_constraint "coalesce(jsonb_typeof(document -> 'steps') = 'array', false)", name: "swatches_document"
    end
  end
end
