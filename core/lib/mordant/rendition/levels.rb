# frozen_string_literal: true

module Mordant
  module Rendition
    # What light a picture has: the numbers that a mapping starts from, in cd/m2 of the brightest of red, green and blue. Immutable.
    #
    # reach: how far its colours lie from grey by gamut and channel, 1 at the edge of the gamut, above 1 beyond it; nil: not known.
    # active: the picture without its bars, left, top, width and height in shares of the whole; nil: all of it.
    Levels = Struct.new(:least, :mean, :greatest, :reach, :active, keyword_init: true) do
      def initialize(reach: nil, active: nil, **light)
        super
        freeze
      end

      # Where nothing was measured: all that the screen of the HDR picture can show.
      #
      # @param view [Grade::View] of the HDR picture
      # @return [Levels]
      def self.nominal(view)
        rendering = view.rendering && Colour.rendering(view.rendering)
        self::NOMINAL.fetch([Colour.encoding(view.encoding), rendering, view.aim&.peak]) do
          peak = [Scopes::Scale.new(view).light([1.0]).first, *rendering&.peak].min
          new(least: self::BLACK, mean: self::MIDDLE, greatest: [peak, self::MOST].min)
        end
      end
    end
    Levels::BLACK = 0.0001 # cd/m2
    Levels::MIDDLE = 10.0
    Levels::NOMINAL = Pointwise::Lately.new(32) # those of views lately: every picture asks for its own
    Levels::MOST = 1000.0 # where neither encoding nor rendering says how bright the HDR picture is
  end
end
