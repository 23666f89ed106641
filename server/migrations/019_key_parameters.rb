# frozen_string_literal: true

# Keys of whole steps become keys of the parameters that move, in grades, their history and swatches; see
# Mordant::Grade::EarlierKeys, which reads both alike.
class KeyParameters < ActiveRecord::Migration[7.1]
  def up
    {"recipes" => "document", "swatches" => "document", "revisions" => nil}.each do |table, column|
      (column ? [column] : %w[before after]).each do |name|
        select_rows("SELECT id, #{name} FROM #{table} WHERE #{name}::text LIKE #{quote('%"keys": [%')}").each do |id, text|
          value = JSON.parse(text)
          steps((column ? value : value["document"])&.fetch("steps", nil))
          execute("UPDATE #{table} SET #{name} = #{quote(JSON.generate(value))}::jsonb WHERE id = #{id}")
        end
      end
    end
  end

  # What reads the older form reads no newer one.
  def down = nil

  private

  def steps(list)
    Array(list).each do |step|
      keyed(step, Mordant::Steps.fetch(step["kind"]))
      Array(step.dig("matte", "contributors")).each { |part| keyed(part, Mordant::Matte.kinds.find { |kind| kind.id == part["kind"] }) }
    end
  end

  def keyed(document, kind)
    return unless document["keys"].is_a?(Array)

    standing, moving = Mordant::Grade::EarlierKeys.new(document["keys"], kind:, path: "keys").call
    document["parameters"] = (document["parameters"] || {}).merge(standing)
    moving.empty? ? document.delete("keys") : document["keys"] = moving
  end
end
