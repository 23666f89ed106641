# frozen_string_literal: true

module Mordant
  module Colour
    # One rendering a file; the constant is the Rendering itself.
    module Renderings
    end
  end
end
