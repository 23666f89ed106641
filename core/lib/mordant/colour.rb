# frozen_string_literal: true

module Mordant
  # Colour spaces and the ways between them.
  #
  # An Encoding says what code values mean: primaries, a transfer function, and
  # whether they describe a scene or a display. One file in encodings/ makes one
  # and registers it; encode and decode go to and from the connection space
  # (scene: ACES2065-1, 0.18 mid grey; display: CIE XYZ under D65, Y = 1 at
  # display white, or at 100 cd/m2 for absolute encodings). A Rendering takes
  # scene light to display light; one file in renderings/ makes one. A
  # Conversion is the chain from one encoding to another.
  #
  # A transfer function in transfer/ is a module with
  #
  #   encode(linear) -> code     decode(code) -> linear
  #
  # for Numo vectors of either element type, defined for every finite number.
  module Colour
    # @raise [UnknownIdError]
    def self.encoding(id) = Encoding.fetch(id)

    # @raise [UnknownIdError]
    def self.rendering(id) = Rendering.fetch(id)
  end
end
