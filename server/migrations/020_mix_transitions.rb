# frozen_string_literal: true

# How transitions go (see Mordant::Cut::Manner), and where a project mixes them (see Mordant::Deliver::Mixing).
class MixTransitions < ActiveRecord::Migration[7.1]
  def change
    add_column :shots, :manner, :jsonb, null: false, default: {}
    add_column :projects, :mixing, :text, null: false, default: "log"
    add_check_constraint :projects, "mixing IN ('log', 'linear', 'display')", name: "projects_mixing"
  end
end
