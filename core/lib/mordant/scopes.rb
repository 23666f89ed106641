# frozen_string_literal: true

module Mordant
  # Instruments. Each takes a Frame and returns counts that a person can check:
  # positions are exact to the bin and densities add up to the pixels measured.
  module Scopes
  end
end
