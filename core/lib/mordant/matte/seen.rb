# frozen_string_literal: true

module Mordant
  module Matte
    # What contributors have in common that look at colours: which picture they are taken from, and
    # how much its noise is calmed before.
    module Seen
      CALMEST = 0.02 # standard deviation as a share of the picture's height

      def self.included(kind)
        kind.text :taken, label: "taken from", from: Sight::TAKEN, neutral: "step",
          about: "step: what its own step gets. first: what the first step gets, so that it stays when steps before it change."
        kind.parameter :calm, label: "calm noise", unit: :share, range: 0.0..CALMEST, neutral: 0.0,
          about: "How far the picture is softened before it is looked at, as a share of its height; the picture itself stays as it is."
      end

      def margin(raster) = calm.zero? ? 0 : Area::Gaussian.new(calm * raster.height).margin

      def sees_step? = taken == "step"

      # By weights_of(axes), which takes Axes of planes or of what stands for them (see Pointwise::Sweep), never written to.
      #
      # @param sight [Sight]
      # @return [Numo::SFloat] [n]
      def weights(sight) = sweep(sight.space).call(*sight.planes([taken, calm]) { calmed(sight) }).first

      private

      def sweep(space) = (@sweeps ||= {})[space.id] ||= Pointwise::Sweep.new(3) { |*planes| [weights_of(Axes.new(planes, space))] }

      def calmed(sight)
        rgb = sight.rgb(taken)
        planes = Pointwise.rows(rgb)
        return planes if calm.zero?

        gaussian = Area::Gaussian.new(calm * sight.moment.height)
        Pointwise::Together.each(planes, pixels: sight.moment.window.size) { |plane| gaussian.call(plane, sight.moment.window) }
      end
    end
  end
end
