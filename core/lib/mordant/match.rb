# frozen_string_literal: true

module Mordant
  # Making one shot like another, by what both show.
  #
  # Light that is common to two pictures of a scene differs between them by the cameras'
  # exposure and white balance: by a step in the logarithm of light, the same for all of
  # it. Match looks for that step.
  module Match
  end
end
