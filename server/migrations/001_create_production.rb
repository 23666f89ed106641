# frozen_string_literal: true

# Projects, what was taken in, cuts, grades and their history.
class CreateProduction < ActiveRecord::Migration[7.1]
  def change
    create_table :projects do |t|
      t.text :name, null: false, index: {unique: true}
      t.integer :rate_numerator, null: false, default: 24
      t.integer :rate_denominator, null: false, default: 1
      t.integer :width, null: false
      t.integer :height, null: false
      t.text :working_space, null: false, default: "acescct"
      t.text :view_encoding, null: false, default: "rec709-bt1886"
      t.text :view_rendering, default: "sdr-video-1.0"
      t.bigint :head_change_id
      t.timestamps
      t.check_constraint "length(btrim(name)) BETWEEN 1 AND 80", name: "projects_name"
      t.check_constraint "rate_numerator > 0 AND rate_denominator > 0", name: "projects_rate"
      t.check_constraint "width BETWEEN 1 AND 16384 AND height BETWEEN 1 AND 16384", name: "projects_raster"
    end

    create_table :media_roots do |t|
      t.text :label, null: false
      t.text :path, null: false, index: {unique: true}
      t.timestamps
      t.check_constraint "path LIKE '/%'", name: "media_roots_path"
    end

    create_table :clips do |t|
      t.references :project, null: false, foreign_key: {on_delete: :cascade}
      t.references :media_root, null: false, foreign_key: true
      t.text :path, null: false
      t.text :status, null: false
      t.text :reason
      t.integer :width, :height, :rate_numerator, :rate_denominator, :frames, :bit_depth
      t.text :start_timecode, :reel, :codec, :pixel_format, :range, :camera, :scene, :take
      t.text :encoding, :encoding_reason
      t.timestamps
      t.index %i[project_id media_root_id path], unique: true
      t.check_constraint "status IN ('ready', 'refused')", name: "clips_status"
      t.check_constraint "status = 'ready' OR reason IS NOT NULL", name: "clips_reason"
      t.check_constraint "status = 'refused' OR (width > 0 AND height > 0 AND frames > 0 AND rate_numerator > 0 " \
                         "AND rate_denominator > 0)", name: "clips_facts"
      t.check_constraint "path NOT LIKE '/%' AND path <> ''", name: "clips_path"
      t.check_constraint "range IN ('full', 'legal')", name: "clips_range"
      t.check_constraint "(encoding IS NULL) = (encoding_reason IS NULL)", name: "clips_encoding"
    end

    create_table :intakes do |t|
      t.references :project, null: false, foreign_key: {on_delete: :cascade}
      t.references :media_root, null: false, foreign_key: true
      t.text :path, null: false
      t.text :status, null: false, default: "waiting"
      t.integer :found, :done, :refused, null: false, default: 0
      t.text :message
      t.timestamps
      t.check_constraint "status IN ('waiting', 'running', 'done', 'failed')", name: "intakes_status"
    end

    create_table :cuts do |t|
      t.references :project, null: false, foreign_key: {on_delete: :cascade}
      t.text :name, null: false
      t.timestamps
      t.index %i[project_id name], unique: true
      t.check_constraint "length(btrim(name)) BETWEEN 1 AND 80", name: "cuts_name"
    end

    create_table :shots do |t|
      t.references :cut, null: false, foreign_key: {on_delete: :cascade}
      t.references :clip, null: false, foreign_key: true
      t.integer :position, null: false
      t.text :name, null: false
      t.text :scene, null: false, default: ""
      t.integer :source_in, :record_in, :length, null: false
      t.integer :dissolve, null: false, default: 0
      t.timestamps
      t.index %i[cut_id position], unique: true
      t.check_constraint "source_in >= 0 AND record_in >= 0 AND length > 0", name: "shots_frames"
      t.check_constraint "dissolve BETWEEN 0 AND length", name: "shots_dissolve"
    end

    create_table :recipes do |t|
      t.references :shot, null: false, foreign_key: {on_delete: :cascade}
      t.text :name, null: false
      t.integer :revision, null: false, default: 0
      t.jsonb :document, null: false
      t.timestamps
      t.index %i[shot_id name], unique: true
      t.check_constraint "revision >= 0", name: "recipes_revision"
      t.check_constraint "coalesce(jsonb_typeof(document -> 'steps') = 'array', false)", name: "recipes_document"
    end

    create_table :changes do |t|
      t.references :project, null: false, foreign_key: {on_delete: :cascade}
      t.references :parent, foreign_key: {to_table: :changes, on_delete: :cascade}
      t.text :words, null: false
      t.text :gesture
      t.timestamps
    end

    create_table :revisions do |t|
      t.references :change, null: false, foreign_key: {on_delete: :cascade}
      t.references :recipe, null: false, foreign_key: {on_delete: :cascade}
      t.jsonb :before, null: false
      t.jsonb :after, null: false
      t.index %i[change_id recipe_id], unique: true
    end

    add_foreign_key :projects, :changes, column: :head_change_id, on_delete: :nullify
  end
end
