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

      private

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

          change.revisions.includes(:recipe).order(:recipe_id).each do |revision|
            recipe = revision.recipe.lock!
            recipe.update!(document: revision.public_send(side), revision: recipe.revision + 1)
          end
          project.update!(head_change_id: head)
          change
        end
      end

      def phrase(words)
        text = words.to_s.strip
        return text if text.length.between?(1, LONGEST)

        raise Mordant::ParameterError.new(path: "words", expected: "1 to #{LONGEST} characters", found: words)
      end
    end
  end
end
