# frozen_string_literal: true

module Mordant
  # Everything the core raises on purpose descends from this.
  class Error < StandardError; end
end
