# frozen_string_literal: true

module Mordant
  module Colour
    # One encoding a file; the constant is the Encoding itself.
    module Encodings
    end
  end
end
