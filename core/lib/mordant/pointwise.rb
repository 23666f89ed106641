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

    # @param plane [Numo::SFloat, Recorded]
    # @param number [Float]
    # @return [Numo::SFloat, Recorded] with a number for what is NaN
    def held(plane, number)
      return plane.none.choose(plane.same(number), plane) if plane.is_a?(Recorded)

      plane.dup.tap { |out| out[out.isnan] = number if out.sum.nan? }
    end

    # @param plane [Numo::SFloat, Recorded] 0..last and less than one more, without NaN
    # @param last [Integer]
    # @return [Numo::SFloat, Recorded] cut off to whole numbers
    def whole(plane, last) = plane.is_a?(Recorded) ? plane.held(last).float : plane.floor

    # @param mask [Numo::Bit, Recorded] where the first holds
    # @param yes [Numo::NArray, Recorded]
    # @param no [Numo::NArray, Recorded]
    # @return [Numo::NArray, Recorded]
    def choose(mask, yes, no) = mask.is_a?(Recorded) ? mask.choose(yes, no) : Colour::Piecewise.select(mask, yes, no)

    SAMPLE = 2048 # pixels

    # Some pixels from all over a picture through operations, which make what entries of tables those need.
    #
    # @param operations [Array<#call>]
    # @param source [Numo::NArray] [3, n]
    def sample(operations, source)
      places = 0.step(source.shape[1] - 1, [source.shape[1] / SAMPLE, 1].max).to_a
      Chain.reduce(operations, Array.new(3) { |channel| source[channel, places].dup }).each(&:free)
    end

    # @param array [Numo::NArray]
    # @param shape [Array<Integer>]
    # @return [Numo::NArray] the same numbers in another shape: of the same memory, where they lie together in it
    def shaped(array, *shape) = array.contiguous? ? array.view.reshape!(*shape) : array.reshape(*shape)

    # @param rgb [Numo::SFloat] [3, n]
    # @param range [Range] of pixel indices
    # @return [Numo::SFloat] [3, pixels], a new array: row by row, as a view of several is slow to copy
    def part(rgb, range) = Numo::SFloat.from_binary(rows(rgb, range).map(&:to_binary).join, [3, range.size])

    # @param rgb [Numo::SFloat] [3, n]
    # @param range [Range, true] of pixel indices
    # @return [Array<Numo::SFloat>] its planes
    def rows(rgb, range = true) = Array.new(3) { |channel| rgb[channel, range] }

    # A formula over planes, tile by tile.
    #
    # @param planes [Array<Numo::NArray>] vectors of one length
    # @param of [Symbol] what they are, see Sweep
    # @yieldparam planes [Array<Numo::NArray, Recorded>]
    # @yieldreturn [Numo::SFloat, Recorded]
    # @return [Numo::SFloat] a new vector
    def swept(*planes, of: :floats)
      Sweep.new(planes.size, of:) { |*tile| [yield(*tile)] }.call(*planes).first
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
