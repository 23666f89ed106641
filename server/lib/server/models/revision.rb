# frozen_string_literal: true

module Server
  # What a change did to one row: a recipe, a shot's choice of version and of family, a wash, a
  # family, a project's settings, what a clip is read as, or the places of a cut's shots.
  class Revision < Record
    SUBJECTS = %w[recipe shot wash project clip family cut].freeze

    belongs_to :change
    SUBJECTS.each { |name| belongs_to name.to_sym, optional: true }

    # @param record [Undoable]
    # @return [Hash] to find or make its revision by
    def self.of(record) = {record.model_name.element.to_sym => record}

    # @return [Undoable]
    def subject = public_send(key.first)

    # @return [Array(String, Integer)] kind and id of what was changed
    def key = SUBJECTS.filter_map { |name| self["#{name}_id"]&.then { |id| [name, id] } }.first
  end
end
