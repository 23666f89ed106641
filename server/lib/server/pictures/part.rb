# frozen_string_literal: true

module Server
  module Pictures
    # A part of a picture as a screen shows it, pixel by pixel: at the raster of the whole
    # picture there, up to that of the master.
    module Part
      MOST = 16_000_000 # pixels

      module_function

      # @param wish [Wish]
      # @param body [Hash] raster: width and height of the whole picture; window: left, top, width and height of
      #   the part, in its pixels; and what is marked in it, see Measuring
      # @return [String] PNG
      # @raise [Mordant::ParameterError, Mordant::MediaError]
      def png(wish, body)
        raster, window = body.values_at("raster", "window")
        width, height = numbers("raster", raster, %w[width height])
        project = wish.project
        refuse("raster", "at most the project's #{project.width}x#{project.height}", raster) unless width.between?(1, project.width) && height.between?(1, project.height)

        left, top, wide, high = numbers("window", window, %w[left top width height])
        fits = left >= 0 && top >= 0 && wide.positive? && high.positive? && left + wide <= width && top + high <= height && wide * high <= MOST
        refuse("window", "a part of the #{width}x#{height} picture, of at most #{MOST} pixels", window) unless fits

        extent, wish = Mordant::Grade::Window.new(left:, top:, width: wide, height: high), wish.with(raster: [width, height])
        Mordant::Media::Png.encode(Measuring.new(wish, body, extent:).shown(*Desk.current.part(wish, extent)))
      end

      def numbers(name, document, keys)
        values = document.is_a?(Hash) ? document.values_at(*keys) : []
        (values.any? && values.all?(Integer)) ? values : refuse(name, "whole numbers #{keys.join(", ")}", document)
      end

      def refuse(path, expected, found) = raise(Mordant::ParameterError.new(path:, expected:, found:))
    end
  end
end
