# frozen_string_literal: true

# Ranges of which pictures are made ahead, or noise is taken away ahead.
class PrepareNoise < ActiveRecord::Migration[7.1]
  def change
    add_column :range_renders, :what, :text, null: false, default: "pictures"
    add_check_constraint :range_renders, "what IN ('pictures', 'noise')", name: "range_renders_what"
  end
end
