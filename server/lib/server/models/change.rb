# frozen_string_literal: true

module Server
  # One accepted change of a project, to one row or many. Changes form a tree:
  # each knows the one it was made on, and the project knows where it stands, so
  # that going back and doing something else loses nothing.
  class Change < Record
    LONGEST = 120 # characters of its words

    belongs_to :project
    belongs_to :person, optional: true
    belongs_to :takes_back, class_name: "Server::Change", optional: true
    belongs_to :parent, class_name: "Server::Change", optional: true
    has_many :revisions

    class << self
      # @param states [Hash{Undoable => Hash}] locked rows, and what of their states is new
      # @param takes_back [Change, nil] that this takes back, where others' changes stand between
      # @return [Change]
      def record(project, words:, states:, gesture: nil, takes_back: nil)
        same = continued(project, gesture, states.keys)
        change = same || create!(project:, parent_id: project.head_change_id, words: phrase(words), gesture:, person: Present.person, takes_back:)
        states.each do |row, state|
          if same
            change.revisions.find_by!(Revision.of(row)).update!(after: state)
          else
            change.revisions.create!(**Revision.of(row), before: row.kept_state.slice(*state.keys), after: state)
          end
          row.take_state(state)
        end
        project.stand_at(change.id, states.keys)
        change
      end

      # @return [Array(Change, Array<Undoable>), nil] what was undone last, and the rows it had changed
      def undo(project) = step(project) { [project.head_change, :before, project.head_change&.parent_id] }

      # @return [Array(Change, Array<Undoable>), nil] what was done again
      def redo(project)
        step(project) do
          following = next_of(project)
          [following, :after, following&.id]
        end
      end

      # @return [Change, nil] what redo would bring
      def next_of(project) = where(project:, parent_id: project.head_change_id).order(:id).last

      # Who made changes, and on which shots, by their ids; in two queries.
      #
      # @param changes [Array<Change>]
      # @return [Hash{Integer => Array(String, String)}] name or nil, and the shot or how many they are, or nil
      def about(changes)
        people = Person.where(id: changes.filter_map(&:person_id).uniq).pluck(:id, :name).to_h
        shots = Revision.where(change_id: changes.map(&:id)).left_joins(:recipe).joins("JOIN shots ON shots.id = COALESCE(revisions.shot_id, recipes.shot_id, recipes.corrects_id)").distinct.pluck(:change_id, "shots.name").group_by(&:first)
        changes.to_h { |change| [change.id, [people[change.person_id], shots[change.id]&.then { |all| (all.size == 1) ? all.first.last : "#{all.size} shots" }]] }
      end

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
      # @return [Array<Undoable>] that have changed
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
      def continued(project, gesture, rows)
        head = gesture && project.head_change
        head if head && head.gesture == gesture && head.person_id == Present.person&.id && head.revisions.map(&:key).sort == rows.map { |row| [row.model_name.element, row.id] }.sort
      end

      def step(project)
        transaction do
          project.lock!
          change, side, head = yield
          [change, restore(project, [change], side, head)] if change
        end
      end

      # Puts rows to what they were before the first of some changes, or after the last.
      #
      # @param changes [Array<Change>] neighbours on the line
      # @param side [Symbol] :before or :after
      # @param head [Integer, nil] where the project stands then
      # @return [Array<Undoable>] that have changed
      def restore(project, changes, side, head)
        states = Revision.where(change: changes).order(:change_id).group_by(&:key).transform_values do |list|
          (side == :before) ? list.reverse.map(&:before).reduce(:merge) : list.map(&:after).reduce(:merge)
        end
        rows = rows_of(states.keys).each { |key, row| row.take_state(states.fetch(key)) }
        project.stand_at(head, rows.values)
        rows.values
      end

      # @param keys [Array<Array(String, Integer)>]
      # @return [Hash{Array(String, Integer) => Undoable}] locked, in one query a kind
      def rows_of(keys)
        keys.group_by(&:first).sort.flat_map do |kind, list|
          Server.const_get(kind.capitalize).where(id: list.map(&:last)).order(:id).lock.map { |row| [[kind, row.id], row] }
        end.to_h
      end

      def phrase(words)
        text = words.to_s.strip
        return text if text.length.between?(1, LONGEST)

        raise Mordant::ParameterError.new(path: "words", expected: "1 to #{LONGEST} characters", found: words)
      end
    end
  end
end
