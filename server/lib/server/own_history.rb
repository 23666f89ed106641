# frozen_string_literal: true

module Server
  # What one of several people takes back and does again: their own changes, wherever others' stand
  # after them. What stands last is stepped back from, as anybody alone would; what others' changes
  # follow is taken back by a change of its own, so that theirs stay.
  class OwnHistory
    DEPTH = 400 # changes that it looks back over

    # Somebody else has changed the same again; answered with 409, and nothing is changed.
    class BuiltOn < Mordant::Error
      def initialize(change)
        super("#{change.person&.name || "somebody"} has gone on from there (#{change.words}); that has to be undone first, or go back before both in the history")
      end
    end

    # @param project [Project]
    # @param person [Person]
    def initialize(project, person)
      @project, @person = project, person
    end

    # @return [Hash{Symbol => String, nil}]
    def words = {undo: last&.words, redo: forward&.words || own_undo&.takes_back&.words}

    # @return [Array(Change, Array<Undoable>), nil] what was taken back, and the rows it had changed
    # @raise [BuiltOn]
    def undo = locked { last && [last, (last.id == @project.head_change_id) ? Change.undo(@project).last : take_back(last, "undone")] }

    # @return [Array(Change, Array<Undoable>), nil] what was done again
    # @raise [BuiltOn]
    def redo
      locked do
        next Change.redo(@project) if forward

        own_undo && [own_undo.takes_back, take_back(own_undo, "done again")]
      end
    end

    private

    def locked
      Change.transaction do
        @project.lock!
        @line = @taken = nil
        yield
      end
    end

    # What was done up to where the project stands, newest first.
    def line
      @line ||= Change.includes(:person, :takes_back).find(ids).sort_by { |change| -change.id }
    end

    def ids
      Change.connection.select_values(Change.sanitize_sql([<<~SQL, {head: @project.head_change_id, depth: DEPTH}]))
        WITH RECURSIVE line AS (
          SELECT id, parent_id, 1 AS depth FROM changes WHERE id = :head
          UNION ALL SELECT changes.id, changes.parent_id, line.depth + 1 FROM changes JOIN line ON changes.id = line.parent_id WHERE line.depth < :depth
        ) SELECT id FROM line
      SQL
    end

    # Those made before there were accounts are everybody's.
    def mine = line.select { |change| change.person_id.nil? || change.person_id == @person.id }

    # @return [Boolean] whether nothing that counts takes it back
    def live?(change)
      @taken ||= line.group_by(&:takes_back_id)
      @taken.fetch(change.id, []).none? { |one| live?(one) }
    end

    def last = mine.find { |change| change.takes_back_id.nil? && live?(change) }

    # What was stepped back from last, and is one's own.
    def forward = Change.next_of(@project)&.then { |change| change if change.person_id.nil? || change.person_id == @person.id }

    # The change by which one has taken something back, if nothing new was done since.
    def own_undo = mine.take_while(&:takes_back_id).find { |change| change.takes_back.takes_back_id.nil? && live?(change) }

    # @return [Array<Undoable>]
    def take_back(change, how)
      revisions = change.revisions.includes(*Revision::SUBJECTS.map(&:to_sym)).to_a
      builders = built_on(line.take_while { |one| one.id != change.id })
      states = revisions.to_h do |one|
        subject, later = one.subject.lock!, builders.fetch(one.key, []).select { |other| other.after.keys.intersect?(one.after.keys) }
        [subject, later.empty? ? one.before : subject.without(one) || raise(BuiltOn, first_in_the_way(subject, one, later))]
      end
      Change.record(@project, words: "#{how}: #{(change.takes_back || change).words}"[0, Change::LONGEST], states:, takes_back: change)
      states.keys
    end

    # @return [Change] the first of later ones after which a change cannot be taken back by itself
    def first_in_the_way(subject, revision, later) = (later.find { |one| !subject.without(revision, one.after) } || later.last).change

    # What later changes did to each thing, in order; those that were taken back do not count.
    #
    # @param later [Array<Change>]
    # @return [Hash{Array(String, Integer) => Array<Revision>}]
    def built_on(later)
      ids = later.map(&:id)
      counting = later.select { |one| live?(one) && !ids.include?(one.takes_back_id) }
      Revision.where(change: counting).includes(change: :person).order(:change_id).group_by(&:key)
    end
  end
end
