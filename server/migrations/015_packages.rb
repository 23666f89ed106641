# frozen_string_literal: true

# Packages of looks, made by workers.
class Packages < ActiveRecord::Migration[7.1]
  def change
    create_table :packages do |t|
      t.references :cut, null: false, foreign_key: {on_delete: :cascade}
      t.jsonb :wish, null: false
      t.text :status, null: false, default: "waiting"
      t.integer :count, :done, null: false, default: 0
      t.text :message
      t.timestamps
    end
  end
end
