# frozen_string_literal: true

module Mordant
  module Pointwise
    # A run of operations as one: a Kernel, where a picture is worth it, the operations one by one where it is small.
    class Compiled
      # Raised where nothing can be said yet of what was asked for.
      class Unread < StandardError; end

      # Runs of what can be recorded each become one.
      #
      # @param operations [Array<#call>] tabulated
      # @param codes [Boolean] the first one takes 16-bit codes
      # @return [Array<#call>]
      def self.joined(operations, codes: false)
        return operations unless Kernel.here?

        runs = operations.slice_when { |a, b| Recording.takes?(a) != Recording.takes?(b) }
        runs.each_with_index.flat_map { |run, place| Recording.takes?(run.first) ? new(run, codes: codes && place.zero?) : run }
      end

      # @param operations [Array<#call>]
      # @param codes [Boolean]
      def initialize(operations, codes: false)
        @quick = operations.map { |operation| operation.respond_to?(:quick) ? operation.quick : operation }
        @type = codes ? Numo::UInt16 : Numo::SFloat
        @kernel = Kernel.new([codes ? :codes : :floats] * 3) { |*planes| Chain.reduce(operations, planes) }
      end

      # @param planes [Array<Numo::NArray>] vectors of one length
      # @param into [Array<Numo::SFloat>] where a kernel puts what it makes, elsewhere, each lying together in memory
      # @return [Array<Numo::SFloat>] those, or new ones
      # @raise [ShapeError] of planes that its memory would be read past
      # @raise [Unread] where a result is NaN: an entry of a table has not been made yet (see MadeWhenRead), or a number was none
      def call(planes, into = nil)
        size = planes.first.size
        return Chain.reduce(@quick, planes) unless worth?(size)
        raise ShapeError, "expected three #{@type} of #{size}, found #{planes.map { |plane| "#{plane.class} of #{plane.size}" }.join(", ")}" unless planes.all? { |plane| plane.is_a?(@type) && plane.size == size }

        made = into || Array.new(3) { Numo::SFloat.new(size).allocate }
        raise ShapeError, "expected three SFloat of #{size} to write to, found #{made.map { |room| "#{room.class} of #{room.size}" }.join(", ")}" unless made.size == 3 && made.all? { |room| room.is_a?(Numo::SFloat) && room.size == size }

        @kernel.run(size, planes, made) ? made : raise(Unread)
      end

      # @param size [Integer] pixels
      # @return [Boolean] they go through the kernel
      def worth?(size) = @kernel.worth?(size)
    end
  end
end
