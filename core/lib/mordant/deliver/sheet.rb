# frozen_string_literal: true

module Mordant
  module Deliver
    # What one output is to be: format, what it is converted to, raster, range, what is drawn
    # over it and which of the grade goes in. Immutable.
    class Sheet
      KEYS = %w[format options view width height fit mask range burns safe graded look noise dither numbers].freeze
      FITS = {"bars" => "whole picture, bars around it", "crop" => "raster filled, the rest cut off"}.freeze
      # How files of a sequence are numbered.
      NUMBERS = {"timecode" => "by timecode", "source" => "as the source is"}.freeze
      MASKS = (1.0..4.0)
      LARGEST = 8192 # pixels of an edge
      LARGE = 4_000_000 # pixels of a frame, of which encoders are told to hold few at once
      HANDLES = (0..240) # frames

      # @return [Class] a Format
      attr_reader :format
      attr_reader :options, :view, :width, :height, :fit, :range, :burns, :safe
      # @return [Float, nil] width over height of what is shown, the rest black; nil: all
      attr_reader :mask
      # @return [String, nil] one of NUMBERS; nil: as the source where that is a run of frames
      attr_reader :numbers
      # @return [Float] how much of the washes goes in, 0.0..1.0
      attr_reader :look

      # @param document [Hash] KEYS; format and view are needed, width and height are those of
      #   the project without them
      # @param width [Integer] of the project
      # @param height [Integer]
      # @raise [ParameterError, UnknownIdError]
      def initialize(document, width:, height:, path: "output")
        @path = path
        Checks.held(path, document, KEYS)
        @document = document
        @format = Format.fetch(document["format"])
        @view = document["view"].is_a?(Grade::View) ? document["view"] : Grade::View.from(document["view"], path: "#{path}.view")
        @options = chosen(document.fetch("options", nil) || {})
        @width, @height = edge("width", width, format.least.first), edge("height", height, format.least.last)
        @fit = one_of("fit", FITS.keys)
        @mask = number("mask", MASKS, nil)
        @range = one_of("range", format.ranges)
        @burns = BurnIn.new(document["burns"] || [], path: "#{path}.burns")
        @numbers = one_of("numbers", NUMBERS.keys, default: nil) unless document["numbers"].nil?
        @safe = shares(document["safe"] || [])
        @graded, @dither, @cleaned = flag("graded"), flag("dither"), flag("noise")
        @look = number("look", 0.0..1.0, 1.0)
        wanted = format.refusal(view)
        refuse("format", wanted, Colour.encoding(view.encoding).label) if wanted
        freeze
      end

      def graded? = @graded

      # @return [Boolean] steps that take noise away go in
      def cleaned? = @cleaned

      # What of the grade it takes; outputs that take the same share its pictures.
      #
      # @return [Array]
      def variant = [graded?, graded? ? look : 0.0, graded? && cleaned?]

      # @return [Boolean] nothing is drawn over the picture, and none of it is left out
      def bare? = mask.nil? && safe.empty? && burns.empty?

      # @return [Boolean] its frames are so large that memory counts
      def large? = width * height > LARGE

      def dither? = @dither && !format.float?

      # @return [Dither, nil] for a frame
      def dither(frame) = dither? ? Dither.new(frame) : nil

      # @param width [Integer]
      # @return [Sheet] the same on a smaller raster of the same shape
      def small(width)
        high = [(width * height.fdiv(self.width)).round, format.least.last].max
        Sheet.new(to_h.merge("view" => view, "width" => [width, format.least.first].max, "height" => high), width:, height: high)
      end

      # @return [Array<String>] what somebody should know before it is written
      def warnings = format.warnings(view)

      # @return [String] one line: what it is converted to
      def statement = [view.to_s, "#{width}x#{height}", range_words, tag_words, grade_words, warnings.first].compact.join(" · ")

      # @return [Hash] as kept
      def to_h = @document.merge("view" => view.to_h.compact.transform_keys(&:to_s), "width" => width, "height" => height)

      private

      def range_words = ("#{range} range" unless format.float?)

      def tag_words = ("tagged #{ColourTags.of(view.encoding).join(" / ")}" unless format.sequence?)

      def grade_words
        return "ungraded" unless graded?

        words = [("look at #{(look * 100).round} %" if look < 1), ("noise left in" unless cleaned?)].compact
        words.join(", ") if words.any?
      end

      def chosen(given)
        Checks.held("#{@path}.options", given, format.options.keys.map(&:to_s))
        format.options.to_h { |name, values| [name, Checks.choice(given.fetch(name.to_s, values.first), "#{@path}.options.#{name}", values)] }
      end

      def edge(name, default, least)
        value = @document[name] || default
        return value if value.is_a?(Integer) && value.between?(least, LARGEST)

        refuse(name, "#{least} to #{LARGEST} pixels for #{format.label}", value)
      end

      def one_of(name, values, default: values.first) = Checks.choice(@document[name] || default, "#{@path}.#{name}", values)

      def number(name, range, default) = @document[name].nil? ? default : Checks.number(@document[name], "#{@path}.#{name}", range)

      def flag(name) = Checks.switch(@document.fetch(name, true), "#{@path}.#{name}")

      def shares(list)
        fine = list.is_a?(Array) && list.size <= 4 && list.all? { |share| share.is_a?(Numeric) && share.between?(0.3, 1.0) }
        fine ? list : refuse("safe", "up to four shares of the picture in 0.3..1.0", list)
      end

      def refuse(name, expected, found) = Checks.reject("#{@path}.#{name}", expected, found)
    end
  end
end
