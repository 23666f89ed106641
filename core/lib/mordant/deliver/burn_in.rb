# frozen_string_literal: true

require "mordant/vips"

module Mordant
  module Deliver
    # Texts that are drawn into pictures: where each stands, how large, and from which tokens
    # it is made. Immutable; a mask of a text is kept while it stays the same.
    class BurnIn
      TOKENS = %w[timecode source_timecode frame source_frame shot scene clip path reel project cut date].freeze
      KEYS = %w[text x y size opacity back].freeze
      MOST = 12
      LONGEST = 200 # characters
      SIZES = (0.01..0.5) # of the picture's height
      LEVEL = 0.9 # of the codes
      FONT = "DejaVu Sans Mono"
      KEPT = 64

      # Presets of ours.
      PRESETS = {
        "slate line" => [{"text" => "{shot}  {clip}  {reel}", "x" => 0.03, "y" => 0.96, "size" => 0.03}, {"text" => "{timecode}", "x" => 0.97, "y" => 0.96, "size" => 0.03}],
        "source and record" => [{"text" => "SRC {source_timecode}", "x" => 0.03, "y" => 0.04, "size" => 0.032}, {"text" => "REC {timecode}", "x" => 0.97, "y" => 0.04, "size" => 0.032}],
        "watermark" => [{"text" => "{project}\n{date}", "x" => 0.5, "y" => 0.5, "size" => 0.09, "opacity" => 0.25, "back" => 0.0}]
      }.freeze

      # @param items [Array<Hash>] text, with tokens in braces; x and y, shares of the picture: at x 0 a
      #   text begins there, at 1 it ends there; size, share of the height; opacity; back, how dark
      #   the field behind it is
      # @raise [ParameterError]
      def initialize(items, path: "burns")
        refuse(path, "at most #{MOST} texts", items) unless items.is_a?(Array) && items.size <= MOST
        @items = items.each_with_index.map { |item, index| checked(item, "#{path}[#{index}]") }.freeze
        @masks = {}
        freeze
      end

      def empty? = @items.empty?

      # @param frame [Frame] codes
      # @param values [Hash{Symbol => String}] of the tokens
      # @return [Frame]
      def draw(frame, values)
        return frame if empty?

        rgb = frame.rgb.dup.reshape(3, frame.height, frame.width)
        @items.each { |item| stamp(rgb, item, filled(item["text"], values), frame.width, frame.height) }
        frame.with(rgb.reshape(3, frame.size))
      end

      private

      def filled(text, values) = text.gsub(/\{(\w+)\}/) { values[$1.to_sym].to_s }

      def stamp(rgb, item, text, width, height)
        mask = mask(text, (item["size"] * height).round) or return
        rows, columns = mask.shape
        rows, columns = [rows, height].min, [columns, width].min
        mask = mask[0...rows, 0...columns]
        left, top = [(item["x"] * (width - columns)).round, (item["y"] * (height - rows)).round].map { |place| [place, 0].max }
        box = [top...(top + rows), left...(left + columns)]
        3.times do |channel|
          under = rgb[channel, *box].dup * (1.0 - item["back"])
          rgb[channel, *box] = under + (LEVEL - under) * mask * item["opacity"]
        end
      end

      # @return [Numo::SFloat, nil] [rows, columns] 0..1, with a margin; nil of a text without anything to see
      def mask(text, pixels)
        return if text.strip.empty?

        key = [text, pixels]
        found = @masks.delete(key) || painted(text, pixels)
        @masks.shift if @masks.size >= KEPT
        @masks[key] = found
      end

      def painted(text, pixels)
        image = Vips::Image.text(text.gsub(/[&<>]/, "&" => "&amp;", "<" => "&lt;", ">" => "&gt;"), font: "#{FONT} #{[pixels * 0.72, 4].max.round}", dpi: 72, align: :centre)
        margin = [pixels / 5, 1].max
        image = image.embed(margin, margin, image.width + 2 * margin, image.height + 2 * margin)
        Numo::SFloat.cast(Numo::UInt8.from_binary(image.write_to_memory, [image.height, image.width])) / 255.0
      end

      def checked(item, path)
        refuse(path, "an object with #{KEYS.join(", ")}", item) unless item.is_a?(Hash) && (item.keys - KEYS).empty?
        text = item["text"]
        refuse("#{path}.text", "1 to #{LONGEST} characters", text) unless text.is_a?(String) && text.length.between?(1, LONGEST) && !text.match?(/[[:cntrl:]&&[^\n]]/)
        unknown = text.scan(/\{([^}]*)\}/).flatten - TOKENS
        refuse("#{path}.text", "tokens among #{TOKENS.join(", ")}", unknown.first) unless unknown.empty?
        ranges = {"x" => [0.0..1.0, 0.5], "y" => [0.0..1.0, 0.95], "size" => [SIZES, 0.04], "opacity" => [0.0..1.0, 1.0], "back" => [0.0..1.0, 0.6]}
        {"text" => text}.merge(ranges.to_h do |name, (range, default)|
          value = item.fetch(name, default)
          refuse("#{path}.#{name}", "a number in #{range}", value) unless value.is_a?(Numeric) && range.cover?(value)
          [name, value.to_f]
        end).freeze
      end

      def refuse(path, expected, found) = raise(ParameterError.new(path:, expected:, found:))
    end
  end
end
