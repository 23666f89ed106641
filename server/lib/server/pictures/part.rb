# frozen_string_literal: true

module Server
  module Pictures
    # A part of a picture as a screen shows it, pixel by pixel: at the raster of the whole
    # picture there, up to that of the master. Where steps change detail that this raster does not
    # hold, it is made finer and reduced.
    module Part
      FINE_BAND = 800_000 # pixels that are made at once of a finer picture, so that others wait for no more
      MOST = 16_000_000 # pixels

      module_function

      # @param gate [#call] takes a block, which it runs when it may
      # @param wish [Wish]
      # @param body [Hash] raster: width and height of the whole picture; window: left, top, width and height of
      #   the part, in its pixels; and what is marked in it, see Measuring
      # @return [String] PNG
      # @raise [Mordant::ParameterError, Mordant::MediaError]
      def png(wish, body, &gate)
        raster, window = body.values_at("raster", "window")
        width, height = numbers("raster", raster, %w[width height])
        project = wish.project
        refuse("raster", "at most the project's #{project.width}x#{project.height}", raster) unless width.between?(1, project.width) && height.between?(1, project.height)

        left, top, wide, high = numbers("window", window, %w[left top width height])
        fits = left >= 0 && top >= 0 && wide.positive? && high.positive? && left + wide <= width && top + high <= height && wide * high <= MOST
        refuse("window", "a part of the #{width}x#{height} picture, of at most #{MOST} pixels", window) unless fits

        extent, wish = Mordant::Grade::Window.new(left:, top:, width: wide, height: high), wish.with(raster: [width, height])
        by = (MARKS.any? { |name| body[name] }) ? 1 : Desk.current.finer(wish)
        Mordant::Media::Png.encode((by == 1) ? yield(-> { Measuring.new(wish, body, extent:).shown(*Desk.current.part(wish, extent)) }) : reduced(wish, extent, by, &gate))
      end

      # What Measuring marks in a picture, pixel by pixel of its own.
      MARKS = %w[acts light bands marks difference].freeze

      # Band after band of a finer picture.
      def reduced(wish, extent, by, &gate)
        fine = wish.with(raster: wish.raster.map { |edge| edge * by })
        rows = [FINE_BAND / (extent.width * by * by), 1].max
        bands = (0...extent.height).step(rows).map do |top|
          band = Mordant::Grade::Window.new(left: extent.left * by, top: (extent.top + top) * by, width: extent.width * by, height: [rows, extent.height - top].min * by)
          gate.call(-> { Desk.current.part(fine, band).last.reduce(by) })
        end
        Mordant::Frame.new(Numo::SFloat.hstack(bands.map(&:rgb)), width: extent.width, height: extent.height, encoding: bands.first.encoding)
      end

      def numbers(name, document, keys)
        values = document.is_a?(Hash) ? document.values_at(*keys) : []
        (values.any? && values.all?(Integer)) ? values : refuse(name, "whole numbers #{keys.join(", ")}", document)
      end

      def refuse(path, expected, found) = raise(Mordant::ParameterError.new(path:, expected:, found:))
    end
  end
end
