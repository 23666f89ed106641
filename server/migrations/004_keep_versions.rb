# frozen_string_literal: true

# Several versions of a shot's grade; one of them is in use.
class KeepVersions < ActiveRecord::Migration[7.1]
  def change
    add_reference :shots, :active_recipe, foreign_key: {to_table: :recipes, on_delete: :nullify}
  end
end
