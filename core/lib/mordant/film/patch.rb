# frozen_string_literal: true

module Mordant
  module Film
    # The part of a picture's active area that a window shows, being worked on: the rest of the window stays as it is. Places are shares of the area's height
    # from its middle.
    class Patch
      # @param a [Grade::Window]
      # @param b [Grade::Window]
      # @return [Grade::Window, nil] what lies in both
      def self.common(a, b)
        left, top = [a.left, b.left].max, [a.top, b.top].max
        width, height = [a.left + a.width, b.left + b.width].min - left, [a.top + a.height, b.top + b.height].min - top
        Grade::Window.new(left:, top:, width:, height:) if width.positive? && height.positive?
      end

      # @param rgb [Numo::SFloat] [3, n] linear light of the moment's window; never written to
      # @param area [Grade::Window] the active area
      # @param here [Grade::Window] what of it lies in the window
      def initialize(rgb, moment, area, here)
        @rgb, @window, @area, @here = rgb, moment.window, area, here
        @light = here.cut(rgb, moment.window).then { |part| part.equal?(rgb) ? part.dup : part }.reshape(3, here.height, here.width)
      end

      # @return [Numo::SFloat] [3, n] of the window
      def out
        return @light.reshape(3, @here.size) if @here == @window

        whole = @rgb.dup.reshape(3, @window.height, @window.width)
        whole[true, (@here.top - @window.top)...(@here.top - @window.top + @here.height), (@here.left - @window.left)...(@here.left - @window.left + @here.width)] = @light
        whole.reshape(3, @window.size)
      end

      # Moves it by pixels; the area's edges go on as they end.
      def shift(across, down)
        along(@light, 1, down, @here.top, @area.top, @area.height)
        along(@light, 2, across, @here.left, @area.left, @area.width)
      end

      # @param gains [Array<Float>] of red, green and blue
      def gain(gains)
        3.times { |channel| @light[channel, true, true] = @light[channel, true, true] * gains[channel] unless gains[channel] == 1.0 }
      end

      # A round soft spot; see Dirt#specks.
      def spot(spot)
        sigma = [spot[:size] * @area.height, Dirt::LEAST].max
        cover = spot[:cover] * [spot[:size] * @area.height / sigma, 1.0].min**2
        x, y = column(spot[:across]), row(spot[:down])
        columns, rows = reach(x, 3 * sigma, @here.width), reach(y, 3 * sigma, @here.height)
        return unless columns && rows

        distance = (Numo::SFloat.cast(rows.to_a).reshape(rows.size, 1) - y)**2 + (Numo::SFloat.cast(columns.to_a).reshape(1, columns.size) - x)**2
        cover(rows, columns, firm(distance * (1.0 / (sigma * sigma))) * cover, spot[:light])
      end

      # A line from top to bottom, here and there fainter; see Dirt#scratches.
      def line(line)
        sigma = [line[:size] * @area.height, Dirt::LEAST].max
        x = column(line[:across])
        columns = reach(x, 3 * sigma, @here.width) or return

        faint = Grade::Window.new(left: 0, top: (@here.top - @area.top) * STRETCHES / @area.height, width: 1, height: STRETCHES + 1)
        worn = (Speckle.normal(faint, line[:seed]) * 0.35 + 0.6).clip(0.0, 1.0)
        place = (Numo::SFloat.new(@here.height).seq * STRETCHES + ((@here.top - @area.top) * STRETCHES % @area.height)) / @area.height
        low = Numo::Int32.cast(place.floor.clip(0, STRETCHES - 1))
        down = worn[low] + (worn[low + 1] - worn[low]) * (place - low)
        profile = Numo::NMath.exp(((Numo::SFloat.cast(columns.to_a) - x) * (1.0 / sigma))**2 * -0.5) * (line[:cover] * [line[:size] * @area.height / sigma, 1.0].min)
        cover(0...@here.height, columns, down.reshape(@here.height, 1) * profile.reshape(1, columns.size), line[:light])
      end
      STRETCHES = 12 # of a scratch, from top to bottom

      # The edge of a gate, with round corners.
      #
      # @param size [Float]
      # @param sway [Array(Float, Float)] pixels that it is moved by
      def border(size, sway)
        width = [size * @area.height, 1e-3].max
        x = ((Numo::SFloat.new(1, @here.width).seq + (@here.left - @area.left + 0.5 - @area.width / 2.0 - sway[0])).abs - (@area.width / 2.0 - width * ROUND))
        y = ((Numo::SFloat.new(@here.height, 1).seq + (@here.top - @area.top + 0.5 - @area.height / 2.0 - sway[1])).abs - (@area.height / 2.0 - width * ROUND))
        corner = Numo::NMath.sqrt(x.clip(0.0, nil)**2 + y.clip(0.0, nil)**2) + Numo::SFloat.minimum(Numo::SFloat.maximum(x + y * 0, y + x * 0), 0.0)
        open = Colour::Piecewise.joined((corner * -1.0 + width * ROUND) * (1.0 / width))
        @light *= open.reshape(1, @here.height, @here.width)
      end
      ROUND = 4.0 # times the size: radius of the corners

      private

      def column(across) = across * @area.height + @area.width / 2.0 - 0.5 + @area.left - @here.left

      def row(down) = down * @area.height + @area.height / 2.0 - 0.5 + @area.top - @here.top

      # Pixels about a place that there are, or nil.
      def reach(place, far, count)
        from, to = [(place - far).floor, 0].max, [(place + far).ceil, count - 1].min
        (from..to) if from <= to
      end

      # A spot's middle is whole, its edge soft.
      def firm(distance) = (Numo::NMath.exp(distance * -0.5) * 1.8).clip(0.0, 1.0)

      def cover(rows, columns, share, light)
        part = @light[true, rows, columns]
        share = share.reshape(1, *share.shape)
        @light[true, rows, columns] = part + (part * -1.0 + (light ? Dirt::LIGHT : 0.0)) * share
      end

      # Moves along an axis, by four neighbours; of what the window does not hold the nearest is taken.
      def along(light, axis, by, first, from, count)
        whole = by.floor
        rest = by - whole
        size = light.shape[axis]
        places = Numo::Int32.new(size).seq + first
        taps = (-1..2).map { |tap| [((places - (whole + tap)).clip(from, from + count - 1) - first).clip(0, size - 1), cubic(tap - rest)] }
        3.times do |channel|
          plane = light[channel, true, true]
          sum = taps.reduce(nil) do |made, (index, weight)|
            moved = (axis == 1) ? plane[index, true] : plane[true, index]
            moved = (moved.dup.inplace * weight).out_of_place!
            made&.then { |other| (moved.inplace + other).out_of_place!.tap { other.free } } || moved
          end
          light[channel, true, true] = sum
          sum.free
        end
      end

      def cubic(at)
        x = at.abs
        return 1.5 * x**3 - 2.5 * x**2 + 1 if x <= 1

        (x < 2) ? -0.5 * x**3 + 2.5 * x**2 - 4 * x + 2 : 0.0
      end
    end
  end
end
