# frozen_string_literal: true

# What a person asked for and a worker does: packages of looks, pictures of the full raster.
class Errands < ActiveRecord::Migration[7.1]
  def change
    create_table :errands do |t|
      t.references :cut, null: false, foreign_key: {on_delete: :cascade}
      t.text :kind, null: false
      t.jsonb :wish, null: false
      t.text :status, null: false, default: "waiting"
      t.integer :count, null: false, default: 1
      t.integer :done, null: false, default: 0
      t.jsonb :result
      t.text :message
      t.timestamps
    end
  end
end
