# frozen_string_literal: true

module Mordant
  module Matte
    module Refinements
      # Draws the matte along the picture's edges: near each place it is made a straight function of the
      # picture's lightness, as far as that explains it.
      #
      #   a = cov(I, m) / (var(I) + edge^2),  b = mean(m) - a mean(I),  m' = mean(a) I + mean(b)
      #
      # with means over boxes and I the lightness on the tone axis.
      #
      # Sources: He, Sun and Tang 2013, "Guided image filtering", equations 5, 6 and 8; a wide one is made
      # of means of blocks, He and Sun 2015, "Fast guided filter".
      class Edges < Refinement
        named :edges, "Follow edges"

        parameter :size, label: "reach", unit: :share, range: 0.0..0.2, neutral: 0.0, about: "How far it looks for edges, as a share of the picture's height."
        parameter :edge, label: "edge", unit: :tone, range: 0.001..0.5, neutral: 0.01, about: "How large a step of lightness counts as an edge."
        text :taken, label: "taken from", from: Sight::TAKEN, neutral: "step", about: "Whose edges: those of what its own step gets, or of what the first one gets."

        def self.sees_picture? = true

        def sees_step? = taken == "step"

        FEWEST = 4.0 # blocks that the reach holds where it is wide

        # The reach alone makes a difference.
        def neutral? = size.zero?

        def margin(raster)
          block, box = grid(raster)
          (block == 1) ? 2 * box.margin : 2 * block * box.margin + Area::Blocks.new(block).margin
        end

        def call(matte, sight)
          guide = Pointwise.swept(*Pointwise.rows(sight.rgb(taken))) { |*rgb| Axes.new(rgb, sight.space).lightness }
          guide[guide.isnan] = 0.0 if guide.sum.nan?
          line = line(guide, matte, sight.moment)
          LINE.call(*line, guide).first.tap { [*line, guide].each(&:free) } # which are large
        end

        PRODUCT = Pointwise::Sweep.new(2) { |light, other| [light * other] }
        LINE = Pointwise::Sweep.new(3) { |slope, level, light| [(slope * light + level).clip(0.0, 1.0)] }
        private_constant :PRODUCT, :LINE

        private

        # One box, whose half width is the reach, over pixels or over blocks of them.
        def grid(raster)
          reach = [size * raster.height, 0.5].max
          block = 2**[Math.log2(reach / FEWEST).floor, 0].max
          [block, Area::Boxes.new(reach / block / Math.sqrt(3.0), passes: 1)]
        end

        # Slope and level of the line at each pixel.
        def line(guide, matte, moment)
          block, box = grid(moment)
          window = moment.window
          return fitted(guide, matte, box, [window.height, window.width]) if block == 1

          blocks = Area::Blocks.new(block)
          means = [guide, matte].map { |plane| blocks.means(Pointwise.shaped(plane, window.height, window.width), window) }
          shape = means.first.shape
          fit = fitted(*means.map { |mean| mean.reshape!(mean.size) }, box, shape).map { |plane| plane.reshape!(*shape) }
          fit.map { |plane| blocks.drawn(plane, window) }.tap { [*means, *fit].each(&:free) }
        end

        # @param shape [Array(Integer, Integer)] of both planes, height and width
        def fitted(guide, matte, box, shape)
          means = meant(box, shape, [guide], [matte], [guide, matte], [guide, guide])
          fit = Pointwise::Sweep.new(4) { |light, level, both, own| ((both - light * level) / ((own - light * light).clip(0.0, nil) + edge**2)).then { |slope| [slope, level - slope * light] } }.call(*means)
          means.each(&:free)
          meant(box, shape, *fit.map { |plane| [plane] }).tap { fit.each(&:free) }
        end

        # Means of planes and of products.
        def meant(box, shape, *factors)
          Pointwise::Together.each(factors, pixels: shape.inject(:*)) do |planes|
            product = PRODUCT.call(*planes).first if planes.size > 1
            mean = box.call(Pointwise.shaped(product || planes.first, *shape))
            product&.free
            mean.reshape!(mean.size)
          end
        end
      end
    end
  end
end
