# frozen_string_literal: true

module Mordant
  module Track
    # Follows a part of a picture from frame to frame. It looks for the part as it was in the frame it began
    # with, so that nothing adds up; where that has changed too much, for the part as it was found last. What
    # it cannot find any more is lost.
    class Follow
      # What of a frame it has found: map in heights of the picture from its middle, since the first frame.
      Found = Struct.new(:map, :confidence, keyword_init: true)

      SURE = 0.8 # correlation from which the first frame is held to
      CLEAR = 0.97 # correlation from which no other place is looked at, at first; then what the frame before had, less
      LESS = 0.02 # this
      LOST = 0.5 # and below which nothing is found
      TRUSTED = 0.6 # confidence of a frame that later ones may be compared with
      WHOLE = 0.95 # share of it that has to be there for a frame to be one that later ones are compared with
      INSIDE = 0.4 # share of the part that has to be in the picture
      LEAVING = 0.75 # share below which it is taken to leave where it is not found
      FEWEST = 24 # pixels of the part at a level
      CLOSER = 2 # of the likeliest places that are looked at to the end
      FLAT = 1e-3 # spread of lightness that is nothing to hold on to

      # Pixels of the raster that parts are followed at, or of the least multiple beyond it.
      WIDTH = 960

      # @return [String, nil] why nothing was found
      attr_reader :why

      # @param plane [Numo::SFloat] [height, width], lightness of the first frame
      # @param mask [Numo::SFloat] [height, width], 0..1
      # @param kind [String] one of Template::KINDS
      # @raise [ParameterError] of a part without anything to hold on to
      def initialize(plane, mask, kind:)
        raise ParameterError.new(path: "with", expected: Template::KINDS.keys.join(", "), found: kind) unless Template::KINDS.key?(kind)
        raise ParameterError.new(path: "shape", expected: "a shape that lies in the picture", found: "nothing of it does") if (mask > 0.25).count_true < 32

        @kind, @mask = kind, mask
        @pyramid = Pyramid.new(plane)
        @first = templates(@pyramid, mask)
        raise ParameterError.new(path: "shape", expected: "something in the picture to hold on to", found: "an even area") if @first.first.spread < FLAT

        @since = @map = @pace = Map::NONE
        @chain, @clear = 1.0, CLEAR
      end

      # @param plane [Numo::SFloat] [height, width] of the frame that follows
      # @return [Found, nil] nil where it is lost; see #why
      def next(plane)
        pyramid = Pyramid.new(plane)
        fit, sure = found(pyramid)
        expected = @first.first.judged(pyramid, @pace * @map).within
        return lost((fit.likeness < LOST) ? expected : [fit.within, expected].min) if fit.within < INSIDE || fit.likeness < LOST || (expected < INSIDE && fit.likeness < SURE)

        @pace = pace(fit.map)
        @map = fit.map
        @clear = fit.likeness - LESS if fit.likeness == sure # by how it looked first
        @recent, @since, @chain = pyramid, fit.map, sure if fit.within > WHOLE && sure > TRUSTED
        Found.new(map: Follow.shares(fit.map, @pyramid.height), confidence: sure.clamp(0.0, 1.0).round(4))
      end

      # @param map [Map] in pixels
      # @return [Map] in heights
      def self.shares(map, height)
        a, b, c, d, e, f, g, h, = map.numbers
        Map.new([a, b, c / height, d, e, f / height, g * height, h * height, 1.0])
      end

      private

      # Of the levels that hold enough of it, the finest first.
      def templates(pyramid, mask)
        made = [Template.new(pyramid, 0, mask, @kind)]
        (1...pyramid.levels).each do |level|
          some = Template.new(pyramid, level, mask, (@kind == "position" || level > 1) ? "position" : "similarity")
          break if some.size < FEWEST

          made << some
        end
        made
      end

      # By how it looked first, and where that is not sure, last; about where it is expected, and where that is not
      # sure either, all around.
      #
      # @return [Array(Template::Fit, Float)] and how sure it is, all the way from the first frame
      def found(pyramid)
        fit = near(@first, pyramid, Map::NONE)
        return clearer(fit, pyramid).then { |one| [one, one.likeness] } if fit.likeness >= SURE

        last = templates(@recent, carried(@since)) if @recent
        again = last && near(last, pyramid, @since)
        unless again && again.likeness >= SURE
          fit = likelier(fit, around(@first, pyramid, Map::NONE))
          again = likelier(again, around(last, pyramid, @since)) if again
        end
        (again && again.likeness > fit.likeness) ? [again, again.likeness * @chain] : [fit, fit.likeness]
      end

      # What is less like than usual may lie elsewhere after all.
      def clearer(fit, pyramid)
        other = around(@first, pyramid, Map::NONE) unless fit.likeness > @clear
        (other && other.likeness > [@clear, fit.likeness + LESS].max) ? other : fit
      end

      # Another place has to be plainly likelier than where it was expected.
      def likelier(fit, other) = (worth(other) > worth(fit) + LESS) ? other : fit

      # @param since [Map] from the first frame to the one that the templates are of
      def near(templates, pyramid, since) = among(templates, pyramid, [@pace * @map], since)

      def around(templates, pyramid, since)
        among(templates, pyramid, [@pace * @map, @map, Map.similarity(*moved(@pace * @map)), Map.similarity(*moved(@map))], since)
      end

      # The best of the likeliest places about some guesses.
      def among(templates, pyramid, guesses, since)
        coarse = templates.last
        starts = guesses.flat_map { |guess| coarse.search.places(pyramid, guess * since.inverse) }.map { |map| coarse.fit(pyramid, map) }.sort_by { |fit| -worth(fit) }.first(CLOSER * guesses.size)
        starts.each_with_object([]) do |start, made|
          made << templates[0...-1].reverse.reduce(start) { |fit, template| template.fit(pyramid, fit.map) } unless made.any? { |fit| fit.likeness > @clear }
        end.max_by { |fit| worth(fit) }.tap { |fit| fit.map *= since }
      end

      def worth(fit) = (fit.within < INSIDE) ? -1.0 : fit.likeness

      # How far its middle goes, in pixels.
      def moved(map) = map.call(*@first.first.centre).zip(@first.first.centre).map { |a, b| a - b }

      # The mask where a map takes it.
      def carried(map)
        height, width = @mask.shape
        across, down = Numo::SFloat.new(1, width).seq + (0.5 - width / 2.0), Numo::SFloat.new(height, 1).seq + (0.5 - height / 2.0)
        x, y = map.inverse.call(across + Numo::SFloat.zeros(height, 1), down + Numo::SFloat.zeros(1, width))
        values, within = Pyramid.new(@mask).read(0, x.reshape(x.size), y.reshape(y.size))
        (values * within).reshape(height, width)
      end

      # What it moved by, of position alone: what turns once does not turn on.
      def pace(map)
        Map.similarity(*moved(map).zip(moved(@map)).map { |now, before| now - before })
      end

      # @param within [Float] share of it that is in the picture, where it was found or expected
      def lost(within)
        @why = (within < LEAVING) ? "it leaves the picture" : "nothing there looks like it any more"
        nil
      end
    end
  end
end
