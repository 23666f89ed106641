# frozen_string_literal: true

# Which path an intake is at and how often it has been begun with, so that one that kills its
# worker is passed over.
class SetJobsAside < ActiveRecord::Migration[7.1]
  def change
    change_table :intakes, bulk: true do |t|
      t.text :at
      t.integer :tries, null: false, default: 0
    end
  end
end
