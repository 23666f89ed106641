# frozen_string_literal: true

# Paths go with their cut, as all else of a project does when it is taken away.
class LetPathsGo < ActiveRecord::Migration[7.1]
  def up
    remove_foreign_key :paths, :cuts
    add_foreign_key :paths, :cuts, on_delete: :cascade
  end

  def down
    remove_foreign_key :paths, :cuts
    add_foreign_key :paths, :cuts
  end
end
