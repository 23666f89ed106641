# frozen_string_literal: true

module Mordant
  # Cuts: timecode, which source frames make a record frame, and cut lists.
  module Cut
  end
end
