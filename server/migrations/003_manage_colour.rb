# frozen_string_literal: true

# Colour management of a project: targets, assignment rules, canvas and ranges; colour
# tags of clips. Pivots of recipes are counted in stops about mid grey from here on.
class ManageColour < ActiveRecord::Migration[7.1]
  TELEVISION = {"id" => "television", "name" => "Television", "encoding" => "rec709-bt1886", "rendering" => "sdr-video-1.0"}.freeze

  def up
    change_table :projects do |t|
      t.jsonb :targets, null: false, default: [TELEVISION]
      t.jsonb :input_rules, null: false, default: []
      t.text :canvas, null: false, default: "2.4"
      t.text :output_range, null: false, default: "legal"
      t.boolean :compress_gamut, null: false, default: false
      t.remove :view_encoding, :view_rendering
      t.check_constraint "jsonb_typeof(targets) = 'array' AND jsonb_array_length(targets) > 0", name: "projects_targets"
      t.check_constraint "jsonb_typeof(input_rules) = 'array'", name: "projects_input_rules"
      t.check_constraint "canvas IN ('2.4', '2.2', 'srgb')", name: "projects_canvas"
      t.check_constraint "output_range IN ('full', 'legal')", name: "projects_output_range"
    end
    change_table :clips do |t|
      t.text :primaries, :transfer, :matrix, :declared_range, :declared_encoding
    end
    execute "UPDATE clips SET declared_range = range"
    each_document { |step| step["pivot"] = stops(step["pivot"]) if step["pivot"] }
  end

  def down
    each_document { |step| step["pivot"] = code(step["pivot"]) if step["pivot"] }
    change_table(:clips) { |t| t.remove :primaries, :transfer, :matrix, :declared_range, :declared_encoding }
    change_table :projects do |t|
      t.remove :targets, :input_rules, :canvas, :output_range, :compress_gamut
      t.text :view_encoding, null: false, default: "rec709-bt1886"
      t.text :view_rendering, default: "sdr-video-1.0"
    end
  end

  private

  # ACEScct codes, Academy S-2016-001, above its break; the old neutral is mid grey.
  def stops(code) = ((code - 0.413).abs < 1e-9) ? 0.0 : (code * 17.52 - 9.72 - Math.log2(0.18)).clamp(-8.0, 8.0).round(4)

  def code(stops) = stops.zero? ? 0.413 : ((stops + Math.log2(0.18) + 9.72) / 17.52).clamp(0.0, 1.0).round(4)

  def each_document
    {"recipes" => %w[document], "revisions" => %w[before after]}.each do |table, columns|
      select_rows("SELECT id, #{columns.join(", ")} FROM #{table}").each do |id, *documents|
        columns.zip(documents).each do |column, text|
          document = JSON.parse(text)
          before = JSON.generate(document)
          document["steps"].each { |step| yield step.fetch("parameters", {}) }
          after = JSON.generate(document)
          execute("UPDATE #{table} SET #{column} = #{quote(after)}::jsonb WHERE id = #{id}") unless before == after
        end
      end
    end
  end
end
