# frozen_string_literal: true

module Mordant
  # An array did not have the shape or element type that was asked for.
  class ShapeError < Error; end
end
