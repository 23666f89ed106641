# frozen_string_literal: true

module Mordant
  # Operations in which every pixel depends on itself alone.
  #
  # An operation works on planes: an Array of three vectors of equal length,
  # Numo::DFloat where numbers are checked or converted one by one, Numo::SFloat
  # where pictures are made. A new kind of operation has
  #
  #   call(planes)      -> planes; it may overwrite what it was given
  #   merge(following)  -> one operation with the meaning of both, or nil
  #
  # and says nothing about tiles: Chain runs a list of them, exactly or through
  # tables whose error is specified (spec/mordant/pointwise/chain_spec.rb). One that
  # says +recordable?+ does to planes only what Recorded has, and is compiled
  # together with its neighbours (see Compiled).
  module Pointwise
    # Pixels worked on at once: few enough that the planes of a tile stay in the second cache, and as many as make a call of
    # Ruby cheap beside its arithmetic.
    TILE = 32_768

    module_function

    # @param plane [Numo::NArray, Recorded]
    # @return [Numo::NArray, Recorded] square roots
    def root(plane) = plane.is_a?(Recorded) ? plane.root : Numo::NMath.sqrt(plane)

    # The rows of a picture in stretches of about TILE pixels.
    #
    # @yieldparam range [Range] of pixel indices
    def each_tile(size)
      return enum_for(:each_tile, size) unless block_given?

      (0...size).step(TILE) { |first| yield first...[first + TILE, size].min }
    end
  end
end
