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
    TILE = 49_152
    # The same where a kernel does it.
    SHORT = 32_768

    module_function

    # @param plane [Numo::NArray, Recorded]
    # @return [Numo::NArray, Recorded] square roots
    def root(plane) = plane.is_a?(Recorded) ? plane.root : Numo::NMath.sqrt(plane)

    SAMPLE = 2048 # pixels

    # Some pixels from all over a picture through operations, which make what entries of tables those need.
    #
    # @param operations [Array<#call>]
    # @param source [Numo::NArray] [3, n]
    def sample(operations, source)
      places = 0.step(source.shape[1] - 1, [source.shape[1] / SAMPLE, 1].max).to_a
      Chain.reduce(operations, Array.new(3) { |channel| source[channel, places].dup }).each(&:free)
    end

    # The rows of a picture in stretches of about TILE pixels, none so small that a kernel cannot take it unless the picture is.
    #
    # @param about [Integer] pixels
    # @yieldparam range [Range] of pixel indices
    def each_tile(size, about = TILE)
      return enum_for(:each_tile, size, about) unless block_given?

      last = [size - Listing::LANES, 0].max
      (0..last).step(about) { |first| yield first...((first + about > last) ? size : first + about) } if size.positive?
    end
  end
end
