# frozen_string_literal: true

module Server
  # What is kept in the database.
  class Record < ActiveRecord::Base
    self.abstract_class = true

    # A row that is not there; answered with 404.
    class Missing < Mordant::Error; end

    # @raise [Missing]
    def self.fetch(id)
      find_by(id: Integer(id.to_s, 10, exception: false)) || raise(Missing, "there is no #{model_name.element} #{id}")
    end
  end
end
