# frozen_string_literal: true

module Mordant
  # Follows a part of a picture through a shot: see Track::Follow.
  module Track
  end
end
