# frozen_string_literal: true

module Server
  class Demo
    # The second cut of the demo production: the same shots, graded to the end (demo/finished.json). What was
    # graded by hand and by eye is read as anything from outside is.
    class Finished
      FILE = File.join(FOLDER, "finished.json")

      # @param cut [Cut] ungraded
      def initialize(cut)
        @cut = cut
        @document = JSON.parse(File.read(FILE))
        @shots = cut.shots.includes(:recipes).index_by(&:name)
      end

      # @return [Cut]
      def grade
        @path = @cut.paths.create!(shot: @shots.fetch(@document["path"]["shot"]), **@document["path"].slice("name", "document").transform_keys(&:to_sym))
        @document["families"].each { |family| form(family) }
        @document["shots"].each { |name, wanted| give(@shots.fetch(name), wanted) }
        @document["washes"].each { |wash| lay(wash) }
        say(@document["note"])
        @cut
      end

      private

      def form(wanted)
        family = Family.form(@cut, name: wanted["name"], members: @shots.values_at(*wanted["shots"]), words: "family #{wanted["name"]}")
        family.recipes.each { |recipe| accept(recipe, {"steps" => wanted[recipe.place]}, "#{wanted["name"]}: #{recipe.place}") }
      end

      def give(shot, wanted)
        wanted["versions"].each_with_index do |(name, document), index|
          shot.branch(name) unless index.zero?
          accept(shot.recipes.reload.find_by!(name:), document, "#{shot.name}: #{name}")
        end
        shot.use(shot.recipes.find_by!(name: wanted["use"]).id) if wanted["use"]
        Shot.mark(@cut, [shot], flag: wanted["flag"], note: wanted["note"], words: "#{shot.name} flagged") if wanted["flag"]
      end

      def lay(wanted)
        wash = Wash.lay(@cut, {"name" => wanted["name"], "from" => @shots[wanted["from"]]&.id, "to" => @shots[wanted["to"]]&.id}, words: "wash #{wanted["name"]}")
        accept(wash.recipe, wanted.slice("steps", "bundles"), "wash #{wanted["name"]}")
      end

      def accept(recipe, document, words) = recipe.accept(revision: recipe.revision, document: tracked(document), words:)

      # Shapes name the path by its name, which has an id of its own here.
      def tracked(value)
        case value
        when Array then value.map { |one| tracked(one) }
        when Hash then value.to_h { |key, one| [key, (key == "path" && one["id"] == @path.name) ? one.merge("id" => @path.id) : tracked(one)] }
        else value
        end
      end

      def say(wanted)
        fresh = Cut.includes(:project).find(@cut.id)
        note = Note.left(fresh, wanted.slice("words", "mark").merge("frame" => @shots.fetch(wanted["shot"]).record_in + wanted["frame"]), by: wanted["by"])
        Note.left(fresh, {"answers" => note.id, "words" => wanted["answer"]}, by: "colourist")
        note.close(true)
      end
    end
  end
end
