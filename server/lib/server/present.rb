# frozen_string_literal: true

require "active_support/current_attributes"

module Server
  # Who asks for what is being done just now, in this thread. Nobody is known where no account
  # was made: then it is oneself, on one's own machine.
  class Present < ActiveSupport::CurrentAttributes
    attribute :sign_in

    # @return [Person, nil]
    def person = sign_in&.person
  end
end
