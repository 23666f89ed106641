# frozen_string_literal: true

module Mordant
  module Media
    # A made picture of known values, to see what a step does: taken in place of a
    # shot's own frames, it goes through the same plan.
    class TestPicture
      DISPLAY = "rec709-bt1886"
      LOG = "acescct"

      # @return [String]
      attr_reader :id, :label, :about, :encoding

      class << self
        # @return [Array<TestPicture>]
        def all
          @all ||= [
            new("bars", "Bars", DISPLAY, "Colour bars at 75 % and at 100 %, and ten steps of grey.", Rows.method(:bars)),
            new("ramps", "Ramps", LOG, "The whole tone axis in grey, red, green and blue.", Rows.method(:ramps)),
            new("colours", "Every colour", DISPLAY, "Every hue from left to right, pale at the top and dark at the bottom.", Rows.method(:colours)),
            new("patches", "Patches", LOG, "Greys a stop apart, skins light to dark, and hues at two saturations.", Rows.method(:patches))
          ].freeze
        end

        # @raise [UnknownIdError]
        def fetch(id) = all.find { |one| one.id == id } || raise(UnknownIdError.new("test picture", id, all.map(&:id)))
      end

      # @param rows [#call] columns [width], 0...1, and a row's place, 0...1 from the top, to
      #   codes [3][width]
      def initialize(id, label, encoding, about, rows)
        @id, @label, @encoding, @about, @rows = id.freeze, label.freeze, encoding, about.freeze, rows
        freeze
      end

      # @return [Codes] the values at the middles of its pixels
      def codes(width, height)
        columns = (Numo::DFloat.new(width).seq + 0.5) / width
        lines = Array.new(height) { |line| Numo::NArray.vstack(@rows.call(columns, (line + 0.5) / height)) }
        codes = Numo::NArray.concatenate(lines, axis: 1)
        Codes.new(Numo::UInt16.cast(codes.clip(0.0, 1.0) * 65_535 + 0.5), width:, height:)
      end

      def to_h = {id:, label:, about:}

      # One row of each picture.
      module Rows
        # White to black by falling luma: the values of the 100/0/75/0 bars of ITU-R BT.471.
        BARS = [[1, 1, 1], [1, 1, 0], [0, 1, 1], [0, 1, 0], [1, 0, 1], [1, 0, 0], [0, 0, 1], [0, 0, 0]].freeze
        BAR_LEVEL = 0.75
        GREYS = 10
        BLACK = Colour::Transfer::Acescct.encode(Numo::DFloat[0.0])[0] # code of no light
        # Stops about mid grey of the patches' greys.
        STOPS = (-8..6).to_a.freeze
        GAP = 0.06 # of a patch, at each of its sides

        module_function

        def bars(x, y)
          return [(x * GREYS).floor / (GREYS - 1.0)] * 3 if y >= 0.8

          level = (y < 0.6) ? BAR_LEVEL : 1.0
          cells(x, BARS.map { |bar| bar.map { |on| on * level } })
        end

        # Codes of the log curve from no light up to its end.
        def ramps(x, y)
          code = x * (1.0 - BLACK) + BLACK
          row = (y * 4).floor
          Array.new(3) { |channel| (row.zero? || channel == row - 1) ? code : x * 0.0 + BLACK }
        end

        # Hue across; white to full colour in the upper half, full colour to black in the lower.
        def colours(x, y)
          hue = [0, 2, 4].map { |at| (((x * 6 - at + 3) % 6 - 3).abs * -1 + 2).clip(0.0, 1.0) }
          (y < 0.5) ? hue.map { |value| value + (value * -1 + 1) * (1 - y * 2) } : hue.map { |value| value * (2 - y * 2) }
        end

        # Light of a chart's squares with nothing between them.
        def patches(x, y)
          light = gap?(y * 4) ? [x * 0.0] * 3 : cells(x, SQUARES[(y * 4).floor]).map { |plane| plane * inside(x) }
          light.map { |plane| Colour::Transfer::Acescct.encode(plane) }
        end

        # @param values [Array<Array<Float>>] of equal parts of the row
        def cells(x, values)
          part = Numo::Int32.cast((x * values.size).floor)
          values.transpose.map { |row| Numo::DFloat[*row][part].dup }
        end

        def gap?(place) = !(place % 1).between?(GAP, 1 - GAP)

        def inside(x)
          place = x * STOPS.size % 1
          Numo::DFloat.cast((place >= GAP) & (place <= 1 - GAP))
        end

        def grey(column) = [0.18 * 2.0**STOPS[column]] * 3

        # A third of a stop darker each; red stands above green as blood does, blue below it.
        def skin(column)
          green = 0.5 * 2.0**(-column / 3.0)
          [green * 1.45, green, green * (0.72 - column * 0.008)]
        end

        def tinted(column, saturation)
          angle = column.to_f / STOPS.size * 2 * Math::PI
          Array.new(3) { |channel| 0.18 * (1 + saturation * Math.cos(angle - channel * 2 * Math::PI / 3)) }
        end

        # Light of the patches, row by row.
        SQUARES = [method(:grey), method(:skin), ->(column) { tinted(column, 0.35) }, ->(column) { tinted(column, 0.8) }]
          .map { |square| Array.new(STOPS.size, &square).freeze }.freeze
      end
    end
  end
end
