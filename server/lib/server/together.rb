# frozen_string_literal: true

module Server
  # What those who work on one project hear of each other: who is where, which recipes have
  # changed just now, and that something else has.
  module Together
    LATELY = 20 # seconds for which a changed recipe is told; a stream that was lost longer reads all anew

    module_function

    # @param projects [Array<Integer>]
    # @return [Hash{Array(String, Integer, Integer) => Hash}] as Events#state has it
    def state(projects)
      return {} if projects.empty?

      there = Presence.there(projects)
      standing = Project.where(id: projects).pluck(:id, :turn, :head_change_id).to_h { |id, turn, head| [["standing", id, id], {id:, turn:, head:}] }
      standing.merge(recipes(projects), notes(projects), projects.to_h { |id| [["presence", id, id], {id:, people: there.fetch(id, [])}] })
    end

    # @param projects [Array<Integer>]
    # @return [Hash{Array(String, Integer, Integer) => Hash}] id and revision of each that has changed lately
    def recipes(projects)
      owner = "COALESCE(shots.cut_id, washes.cut_id, families.cut_id)"
      Recipe.where(updated_at: (Time.now - LATELY)..).where("revision > 0")
        .joins("LEFT JOIN shots ON shots.id = COALESCE(recipes.shot_id, recipes.corrects_id) LEFT JOIN washes ON washes.id = recipes.wash_id LEFT JOIN families ON families.id = recipes.family_id JOIN cuts ON cuts.id = #{owner}")
        .where(cuts: {project_id: projects}).pluck(:id, :revision, "cuts.project_id")
        .to_h { |id, revision, project| [["recipe", project, id], {id:, revision:}] }
    end

    # One mark for a cut's notes; whoever shows them reads them anew when it changes.
    #
    # @param projects [Array<Integer>]
    # @return [Hash{Array(String, Integer, Integer) => Hash}] id of the cut and mark
    def notes(projects)
      Note.joins(:cut).where(cuts: {project_id: projects}).group("cuts.project_id", :cut_id).pluck("cuts.project_id", :cut_id, Arel.sql("count(*)"), Arel.sql("max(notes.updated_at)"))
        .to_h { |project, cut, count, at| [["notes", project, cut], {id: cut, mark: "#{count} #{at.to_f}"}] }
    end
  end
end
