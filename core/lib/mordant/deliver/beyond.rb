# frozen_string_literal: true

module Mordant
  module Deliver
    # Pixels that codes cannot say.
    module Beyond
      SMALLEST = 1e-3 # beyond the codes, as a share of them

      module_function

      # @param rgb [Numo::SFloat] [3, n] codes; those that are not there lie within
      # @param size [Integer] pixels of the whole picture
      # @param float [Boolean] the codes have no end upwards
      # @return [Float] share of the picture
      def share(rgb, size:, float: false)
        found = Pointwise.each_tile(rgb.shape[1]).sum do |range|
          planes, kernel = Array.new(3) { |channel| rgb[channel, range] }, kernel(float)
          kernel.worth?(range.size) ? counted(kernel, planes, range.size) : out(planes, float).count_true
        end
        found.fdiv(size).round(5)
      end

      def counted(kernel, planes, size)
        flags = Numo::UInt16.new(size).allocate
        kernel.run(size, planes, [flags]) ? 0 : Numo::UInt32.cast(flags).sum
      end

      def kernel(float)
        @kernels ||= {}
        @kernels[float] ||= Pointwise::Kernel.new([:floats] * 3) { |*planes| out(planes, float).then { |mask| [mask.flag, mask] } }
      end

      # @param planes [Array<Numo::SFloat, Pointwise::Recorded>]
      # @return [Numo::Bit, Pointwise::Recorded] where any is
      def out(planes, float)
        planes.map { |plane| float ? plane < -SMALLEST : (plane < -SMALLEST) | (plane > 1 + SMALLEST) }.reduce(:|)
      end
    end
  end
end
