# frozen_string_literal: true

# What the files of an output's sources were when it began, so that one that is replaced
# while frames are made of it is noticed.
class RememberSources < ActiveRecord::Migration[7.1]
  def change = add_column(:outputs, :sources, :jsonb, null: false, default: {})
end
