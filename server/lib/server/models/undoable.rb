# frozen_string_literal: true

module Server
  # A row whose state is part of a project's history: a class names the attributes that
  # come and go with it in KEPT.
  module Undoable
    # A write by somebody who saw an older state; answered with 409, and nothing is changed.
    class Stale < Mordant::Error; end

    # @return [Hash{String => Object}] what the history keeps of it
    def kept_state = attributes.slice(*self.class::KEPT)

    # Refuses to go on when what somebody saw is not what is there any more.
    #
    # @param seen [Hash{String => Object}, nil] some of KEPT, as they were seen; nil: not said
    # @raise [Stale, Mordant::ParameterError]
    def unchanged_since(seen)
      return unless seen
      raise Mordant::ParameterError.new(path: "seen", expected: "what was seen, by name", found: seen) unless seen.is_a?(Hash)

      changed = seen.slice(*self.class::KEPT).find { |name, value| self[name].as_json != value }
      return unless changed

      raise Stale, "another window has changed #{changed.first.delete_suffix("_shot_id").tr("_", " ")} meanwhile; it is shown as it is now, make your change again if it is still wanted"
    end

    # What a state is once a change is taken back that others have followed on it.
    #
    # @param revision [Revision] of that change
    # @param state [Hash{String => Object}]
    # @return [Hash{String => Object}, nil] some of KEPT; nil: theirs could not stay
    def without(_revision, _state = kept_state) = nil

    # @param state [Hash{String => Object}] some of KEPT
    def take_state(state) = update!(state)
  end
end
