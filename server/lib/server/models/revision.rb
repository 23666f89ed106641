# frozen_string_literal: true

module Server
  # What a change did to one recipe.
  class Revision < Record
    belongs_to :change
    belongs_to :recipe
  end
end
