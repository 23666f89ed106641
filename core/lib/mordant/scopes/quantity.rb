# frozen_string_literal: true

module Mordant
  module Scopes
    # Something that is measured at every pixel, for bands.
    #
    # luma: of the view's codes, 0..1. light: luminance of the view, cd/m2. saturation: distance
    # from grey in the plane of colour differences, 1 at its edge. hue: angle there, degrees
    # from Cb towards Cr; none of greys. stops: luminance in the working space about mid grey.
    class Quantity
      LEAST_CHROMA = 0.01
      DARKEST = 2.0**-20 # light, as the least of stops

      # @return [String]
      attr_reader :id, :label, :unit
      # @return [Range<Float>] that an interface shows
      attr_reader :range

      class << self
        # @return [Array<Quantity>]
        def all
          @all ||= [
            new("luma", "display luma", "%", 0.0..1.0) { |signal, _| signal.luma },
            new("light", "luminance", "cd/m2", 0.001..10_000.0, log: true) { |signal, picture| light(signal, picture) },
            new("saturation", "saturation", "%", 0.0..1.0) { |signal, _| chroma(signal) * 2 },
            new("hue", "hue", "degrees", 0.0..360.0) { |signal, _| hue(signal) },
            new("stops", "stops about mid grey", "st", -9.0..8.0) { |_, picture| stops(picture) }
          ].freeze
        end

        # @raise [UnknownIdError]
        def fetch(id) = all.find { |one| one.id == id } || raise(UnknownIdError.new("quantity", id.to_s, all.map(&:id)))

        private

        def chroma(signal) = Numo::NMath.sqrt(signal.cb**2 + signal.cr**2)

        def hue(signal)
          angle = Numo::NMath.atan2(signal.cr, signal.cb) * (180 / Math::PI)
          angle += Numo::SFloat.cast(angle.lt(0)) * 360
          Colour::Piecewise.select(chroma(signal).lt(LEAST_CHROMA), angle.new_fill(Float::NAN), angle)
        end

        def light(signal, picture)
          table = Pointwise::Chain.new(Colour.encoding(signal.encoding).decoding)
          table.call(Numo::NArray.vstack([signal.red, signal.green, signal.blue]))[1, true] * picture.unit
        end

        def stops(picture)
          space = picture.space
          light = Array.new(3) { |channel| space.transfer.decode(picture.working.rgb[channel, true].dup) * space.luminance_weights[channel] }.reduce(:+)
          Numo::NMath.log2(light.clip(DARKEST, nil) / Colour::WorkingSpace::MID_GREY)
        end
      end

      # What quantities are read from besides the signal: the working frame, its space, and
      # cd/m2 of linear 1.0 of the view.
      Picture = Struct.new(:working, :space, :unit, keyword_init: true)

      # @yieldparam signal [Signal]
      # @yieldparam picture [Picture]
      # @yieldreturn [Numo::SFloat] [n]; NaN where there is no such thing
      def initialize(id, label, unit, range, log: false, &read)
        @id, @label, @unit, @range, @log, @read = id, label, unit, range, log, read
        freeze
      end

      # @return [Numo::SFloat] [n]
      def read(signal, picture) = @read.call(signal, picture)

      def to_h = {id:, label:, unit:, min: range.begin, max: range.end, log: @log}
    end
  end
end
