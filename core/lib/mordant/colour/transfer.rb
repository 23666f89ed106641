# frozen_string_literal: true

module Mordant
  module Colour
    # Transfer functions, one file each; see Colour for what a member must have.
    # Code values are full range, 0.0..1.0; scene light has 0.18 at mid grey.
    module Transfer
    end
  end
end
