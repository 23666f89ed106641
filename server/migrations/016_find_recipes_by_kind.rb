# frozen_string_literal: true

# Recipes with steps that read files of the library are looked for whenever a picture's address is told.
class FindRecipesByKind < ActiveRecord::Migration[7.1]
  def change = add_index(:recipes, :document, using: :gin, opclass: :jsonb_path_ops)
end
