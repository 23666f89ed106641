# frozen_string_literal: true

module Mordant
  # Recipes, and what becomes of a source under one.
  #
  # A Recipe is an ordered list of Entries, each a step with its name, switch and
  # strength. A Plan compiles one for a source encoding and runs it into the
  # working space; an Output goes from there to what a View asks for.
  module Grade
  end
end
