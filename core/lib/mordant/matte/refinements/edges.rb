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
          window = sight.moment.window
          guide = Pointwise.swept(*Pointwise.rows(sight.rgb(taken))) { |*rgb| Axes.new(rgb, sight.space).lightness }
          guide[guide.isnan] = 0.0 if guide.sum.nan?
          block, box = grid(sight.moment)
          a, b = [guide, matte].map { |plane| Pointwise.shaped(plane, window.height, window.width) }.then { |planes| (block == 1) ? fitted(*planes, box) : coarsely(*planes, box, Area::Blocks.new(block), window) }
          Pointwise.swept(*[a, b].map { |plane| Pointwise.shaped(plane, window.size) }, guide) { |slope, level, light| (slope * light + level).clip(0.0, 1.0) }
        end

        private

        # One box, whose half width is the reach, over pixels or over blocks of them.
        def grid(raster)
          reach = [size * raster.height, 0.5].max
          block = 2**[Math.log2(reach / FEWEST).floor, 0].max
          [block, Area::Boxes.new(reach / block / Math.sqrt(3.0), passes: 1)]
        end

        def fitted(guide, matte, box)
          middle, level, both, own = boxed(box, matte.size, -> { guide }, -> { matte }, -> { guide * matte }, -> { guide * guide })
          a = (both - middle * level) / ((own - middle * middle).clip(0.0, nil) + edge**2)
          boxed(box, a.size, -> { a }, -> { level - a * middle })
        end

        def boxed(box, pixels, *planes) = Pointwise::Together.each(planes, pixels:) { |plane| box.call(plane.call) }

        def coarsely(guide, matte, box, blocks, window)
          fitted(blocks.means(guide, window), blocks.means(matte, window), box).map { |plane| blocks.drawn(plane, window) }
        end
      end
    end
  end
end
