# frozen_string_literal: true

module Server
  # A row whose state is part of a project's history: a class names the attributes that
  # come and go with it in KEPT.
  module Undoable
    # @return [Hash{String => Object}] what the history keeps of it
    def kept_state = attributes.slice(*self.class::KEPT)

    # @param state [Hash{String => Object}] some of KEPT
    def take_state(state) = update!(state)
  end
end
