# frozen_string_literal: true

require "mordant/vips"

module Mordant
  module Deliver
    # A picture on another raster, with an aspect mask and safe areas.
    module Fit
      LINE = 0.6 # of the codes, of safe areas

      module_function

      # @param frame [Frame]
      # @param sheet [Sheet]
      # @return [Frame] the same one where nothing is to be done
      def call(frame, sheet)
        frame = resized(frame, sheet) unless [frame.width, frame.height] == [sheet.width, sheet.height]
        frame = masked(frame, sheet.mask) if sheet.mask
        sheet.safe.reduce(frame) { |so, share| outlined(so, share) }
      end

      def resized(frame, sheet)
        scales = [sheet.width.fdiv(frame.width), sheet.height.fdiv(frame.height)]
        image = image_of(frame)
        scale = (sheet.fit == "crop") ? scales.max : scales.min
        image = image.resize(scale, kernel: :lanczos3) unless scale == 1.0
        frame_of(placed(image, sheet.width, sheet.height), frame.encoding)
      end

      # In the middle of the raster, what is over it cut off.
      def placed(image, width, height)
        left, top = [(image.width - width) / 2, 0].max, [(image.height - height) / 2, 0].max
        image = image.crop(left, top, [image.width, width].min, [image.height, height].min)
        return image if [image.width, image.height] == [width, height]

        image.embed((width - image.width) / 2, (height - image.height) / 2, width, height)
      end

      def masked(frame, aspect)
        shown_height = [(frame.width / aspect).round, frame.height].min
        shown_width = [(frame.height * aspect).round, frame.width].min
        rgb = frame.rgb.dup.reshape(3, frame.height, frame.width)
        top, left = (frame.height - shown_height) / 2, (frame.width - shown_width) / 2
        rgb[true, 0...top, true] = 0.0 if top.positive?
        rgb[true, (frame.height - top)..., true] = 0.0 if top.positive?
        rgb[true, true, 0...left] = 0.0 if left.positive?
        rgb[true, true, (frame.width - left)...] = 0.0 if left.positive?
        frame.with(rgb.reshape(3, frame.size))
      end

      def outlined(frame, share)
        rgb = frame.rgb.dup.reshape(3, frame.height, frame.width)
        top, left = [frame.height, frame.width].map { |edge| (edge * (1 - share) / 2).round }
        bottom, right = [frame.height - 1 - top, top].max, [frame.width - 1 - left, left].max
        [top, bottom].each { |row| rgb[true, row, left..right] = LINE }
        [left, right].each { |column| rgb[true, top..bottom, column] = LINE }
        frame.with(rgb.reshape(3, frame.size))
      end

      def image_of(frame) = Vips::Image.new_from_memory(frame.rgb.transpose.dup.to_binary, frame.width, frame.height, 3, :float)

      def frame_of(image, encoding)
        values = Numo::SFloat.from_binary(image.cast(:float).write_to_memory, [image.width * image.height, 3])
        Frame.new(values.transpose.dup, width: image.width, height: image.height, encoding:)
      end
    end
  end
end
