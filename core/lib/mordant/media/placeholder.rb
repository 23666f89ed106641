# frozen_string_literal: true

require "mordant/vips"

module Mordant
  module Media
    # Pictures where there is no footage: black, or a slate that says what is missing. Read as a
    # clip is; its frames are alike.
    class Placeholder
      FONT = "DejaVu Sans Mono"
      GROUND, INK, LINE = [11_000, 45_000, 20_000].freeze # codes of 65_535
      SIZE = 0.055 # of a line of text, of the height

      # @param lines [Array<String>] of the slate; none for black
      def initialize(lines = [])
        @lines = lines.freeze
        @pictures = {}
      end

      # @see Reader#each
      def each(first:, count:, width:, height:) = count.times { yield picture(width, height) }

      # @return [Codes]
      def frame(_number, width:, height:) = picture(width, height)

      private

      def picture(width, height)
        @pictures.shift while @pictures.size > 1
        @pictures[[width, height]] ||= Codes.new(Numo::NArray.vstack([plane(width, height)] * 3), width:, height:)
      end

      def plane(width, height)
        return Numo::UInt16.zeros(width * height) if @lines.empty?

        plane = Numo::UInt16.new(height, width).fill(GROUND)
        border, edge = [height / 14, 1].max, [height / 180, 1].max
        [[border, height - border - edge, true], [border, width - border - edge, false]].each do |from, to, across|
          [from, to].each { |at| across ? plane[at...(at + edge), border...(width - border)] = LINE : plane[border...(height - border), at...(at + edge)] = LINE }
        end
        written(plane, width, height)
        plane.reshape(width * height)
      end

      def written(plane, width, height)
        text = @lines.join("\n").gsub(/[&<>]/, "&" => "&amp;", "<" => "&lt;", ">" => "&gt;")
        image = Vips::Image.text(text, font: "#{FONT} #{[height * SIZE, 4].max.round}", dpi: 72, width: (width * 0.8).round, align: :centre, wrap: :char)
        mask = Numo::SFloat.cast(Numo::UInt8.from_binary(image.write_to_memory, [image.height, image.width])) / 255
        mask = mask[0...[image.height, height].min, 0...[image.width, width].min]
        top, left = (height - mask.shape[0]) / 2, (width - mask.shape[1]) / 2
        rows, columns = top...(top + mask.shape[0]), left...(left + mask.shape[1])
        plane[rows, columns] = Numo::UInt16.cast(GROUND + mask * (INK - GROUND))
      end
    end
  end
end
