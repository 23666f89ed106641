# frozen_string_literal: true

module Server
  # One accepted change of a project, to one recipe or many. Changes form a tree:
  # each knows the one it was made on, and the project knows where it stands, so
  # that going back and doing something else loses nothing.
  class Change < Record
    LONGEST = 120 # characters of its words

    belongs_to :project
    belongs_to :parent, class_name: "Server::Change", optional: true
    has_many :revisions

    class << self
      # @param recipes [Hash{Recipe => Hash}] locked recipes and their new documents
      # @return [Change]
      def record(project, words:, recipes:, gesture: nil)
        same = continued(project, gesture, recipes.keys)
        change = same || create!(project:, parent_id: project.head_change_id, words: phrase(words), gesture:)
        recipes.each do |recipe, document|
          if same
            change.revisions.find_by!(recipe:).update!(after: document)
          else
            change.revisions.create!(recipe:, before: recipe.document, after: document)
          end
          recipe.update!(document:, revision: recipe.revision + 1)
        end
        project.update!(head_change_id: change.id)
        change
      end

      # @return [Change, nil] what was undone last
      def undo(project) = step(project) { [project.head_change, :before, project.head_change&.parent_id] }

      # @return [Change, nil] what was done again
      def redo(project)
        step(project) do
          following = next_of(project)
          [following, :after, following&.id]
        end
      end

      # @return [Change, nil] what redo would bring
      def next_of(project) = where(project:, parent_id: project.head_change_id).order(:id).last

      # What was done up to where the project stands, and what redo would bring, oldest
      # first; in one query.
      #
      # @return [Array<Change>]
      def line(project)
        all = where(project:).order(:id).to_a
        by_id, followers = all.index_by(&:id), all.group_by(&:parent_id).transform_values(&:last)
        done = walk(by_id[project.head_change_id]) { |change| by_id[change.parent_id] }
        done.reverse + walk(followers[project.head_change_id]) { |change| followers[change.id] }
      end

      # Goes back or on to a change of the line, or before the first one.
      #
      # @param id [Integer, nil] of a change; nil: before all
      # @return [Array<Recipe>] that have changed
      # @raise [Mordant::ParameterError] of a change that is not on the line
      def travel(project, id)
        transaction do
          project.lock!
          list = line(project)
          to = id ? list.index { |change| change.id == id } : -1
          raise Mordant::ParameterError.new(path: "change", expected: "a change of the history", found: id) unless to

          from = list.index { |change| change.id == project.head_change_id } || -1
          next restore(project, list[(from + 1)..to], :after, id) if to > from

          restore(project, list[(to + 1)..from], :before, id)
        end
      end

      private

      def walk(first)
        list = []
        while first
          list << first
          first = yield(first)
        end
        list
      end

      # The change of the same drag, when nothing came between.
      def continued(project, gesture, recipes)
        head = gesture && project.head_change
        head if head && head.gesture == gesture && head.revisions.pluck(:recipe_id).sort == recipes.map(&:id).sort
      end

      def step(project)
        transaction do
          project.lock!
          change, side, head = yield
          next unless change

          restore(project, [change], side, head)
          change
        end
      end

      # Puts recipes to what they were before the first of some changes, or after the last.
      #
      # @param changes [Array<Change>] neighbours on the line
      # @param side [Symbol] :before or :after
      # @param head [Integer, nil] where the project stands then
      # @return [Array<Recipe>] that have changed
      def restore(project, changes, side, head)
        documents = Revision.where(change: changes).order(:change_id).each_with_object({}) do |revision, found|
          (side == :before) ? found[revision.recipe_id] ||= revision.before : found[revision.recipe_id] = revision.after
        end
        recipes = Recipe.where(id: documents.keys).order(:id).lock.to_a
        recipes.each { |recipe| recipe.update!(document: documents.fetch(recipe.id), revision: recipe.revision + 1) }
        project.update!(head_change_id: head)
        recipes
      end

      def phrase(words)
        text = words.to_s.strip
        return text if text.length.between?(1, LONGEST)

        raise Mordant::ParameterError.new(path: "words", expected: "1 to #{LONGEST} characters", found: words)
      end
    end
  end
end
