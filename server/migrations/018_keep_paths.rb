# frozen_string_literal: true

# What tracking has found: where a part of a shot's picture goes. A path is never changed, so that a
# recipe that names one always makes the same pictures; what is tracked on is a path of its own.
class KeepPaths < ActiveRecord::Migration[7.1]
  def change
    create_table :paths do |t|
      t.references :cut, null: false, foreign_key: true
      t.references :shot, foreign_key: {on_delete: :nullify}
      t.text :name, null: false
      t.jsonb :document, null: false
      t.timestamps
    end
  end
end
