# frozen_string_literal: true

module Mordant
  module Matte
    # What contributors have in common whose weights come from another place: a source that is given to
    # them, see Grade::Recipe#resolved, a crop and a placing. A source answers weights(sight), [n] of
    # the sight's window, moving?, at(shot_frame), stamp, for JSON, and sees_step?.
    module Elsewhere
      CROP = %i[left right top bottom].freeze

      def self.included(kind)
        kind.parameter :crop, label: "crop", unit: :share, range: 0.0..1.0, neutral: 0.0, channels: CROP, about: "What is hidden at each side of the matte, as shares of its width and height; what is left stays where it is."
        kind.define_singleton_method(:family) { :elsewhere }
      end

      # @return [Object, nil] where it comes from
      attr_reader :source

      def carried(_there) = self

      def moving? = @source ? @source.moving? : false

      def at(shot_frame) = moving? ? with_source(@source.at(shot_frame)) : self

      def stamps = @source ? [@source.stamp] : []

      def sees_step? = false

      # Nothing, until somebody has chosen what it comes from.
      #
      # @raise [ParameterError] without a source
      def weights(sight)
        return Numo::SFloat.zeros(sight.moment.window.size) unless chosen?
        raise ParameterError.new(path: "matte.contributors", expected: "a matte that is there", found: missing) unless @source

        map = placing
        return cropped(@source.weights(sight), sight.moment.window, sight.moment) if map.numbers == Track::Map::NONE.numbers

        moved(map, sight)
      end

      private

      def with_source(source) = source.equal?(@source) ? self : dup.tap { |one| one.instance_variable_set(:@source, source) }

      # What lies outside of its frame is nothing.
      def cropped(weights, window, raster)
        return weights if crop.all?(&:zero?)

        left, right, top, bottom = crop.each_with_index.map { |share, side| share * ((side < 2) ? raster.width : raster.height) }
        kept = weights.reshape(window.height, window.width).dup
        across, down = [[window.left, window.width, left, raster.width - right], [window.top, window.height, top, raster.height - bottom]].map do |first, count, from, to|
          ((Numo::SFloat.new(count).seq + (first + 0.5 - from)).clip(-0.5, 0.5) + 0.5) * ((Numo::SFloat.new(count).seq * -1.0 + (to - first - 0.5)).clip(-0.5, 0.5) + 0.5)
        end
        (kept * across.reshape(1, window.width) * down.reshape(window.height, 1)).reshape(window.size)
      end

      # Straight between the four pixels around where a place comes from; nothing beyond the picture.
      def moved(map, sight)
        moment = sight.moment
        across, down = map.inverse.call(*Matte.places(moment)).map { |plane| plane + Numo::SFloat.zeros(moment.window.height, moment.window.width) }
        from = [across * moment.height + (moment.width / 2.0 - 0.5), down * moment.height + (moment.height / 2.0 - 0.5)]
        part = reached(from, moment) or return Numo::SFloat.zeros(moment.window.size)

        there = sight.at(moment.at(part))
        read(cropped(@source.weights(there), part, moment), part, *from).reshape(moment.window.size)
      end

      # @return [Grade::Window, nil] of the source that is needed
      def reached(from, moment)
        (left, right), (top, bottom) = from.zip([moment.width, moment.height]).map { |plane, size| [plane.min.floor.clamp(0, size), (plane.max.floor + 2).clamp(0, size)] }
        Grade::Window.new(left:, top:, width: right - left, height: bottom - top) if right > left && bottom > top
      end

      # With nothing around it, two pixels wide.
      def read(weights, part, across, down)
        rows, columns = part.height + 4, part.width + 4
        framed = Numo::SFloat.zeros(rows, columns)
        framed[2...(2 + part.height), 2...(2 + part.width)] = weights.reshape(part.height, part.width)
        framed = framed.reshape(rows * columns)
        left, top = across.floor, down.floor
        right, low = across - left, down - top
        at = Numo::Int64.cast((top - (part.top - 2)).clip(0, rows - 2)) * columns + Numo::Int64.cast((left - (part.left - 2)).clip(0, columns - 2))
        upper, lower = [0, columns].map { |row| framed[at + row].dup.then { |one| one + (framed[at + (row + 1)].dup - one) * right } }
        upper + (lower - upper) * low
      end
    end
  end
end
