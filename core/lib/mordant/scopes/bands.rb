# frozen_string_literal: true

module Mordant
  module Scopes
    # Colour bands over a measured quantity, painted into the picture.
    #
    # As a document: {"name", "quantity", "scale": "absolute" or "relative" (to what 99.9 % of the
    # picture stay below), "join": "hard" or "blended", "rest": "grey" or "picture",
    # "opacity" and "softness" 0..1, "bands": [{"from", "to", "colour": "#rrggbb"}, ...]} in the
    # quantity's unit, or in shares of the picture's own. A band may have an "opacity" of its own,
    # and a "join" of its own to the band above it.
    #
    # A band's share falls from 1 to 0 about its limits along 3u^2 - 2u^3, over softness
    # times its width. Blended, the colour goes straight from the middle of a band to the
    # next one's.
    class Bands
      KEYS = %w[name quantity scale join rest opacity softness bands].freeze
      MOST = 32
      TOP = 0.999
      # Luma that is left of the rest in grey.
      GREY = 0.55
      CHOICES = {"scale" => %w[absolute relative], "join" => %w[hard blended], "rest" => %w[grey picture]}.freeze
      DEFAULTS = {"scale" => "absolute", "join" => "hard", "rest" => "grey", "opacity" => 1.0, "softness" => 0.0}.freeze
      LIMITS = (-1e6..1e6)
      SHARE = (0.0..1.0)

      Band = Struct.new(:from, :to, :colour, :opacity, :join, keyword_init: true) do
        def width = to - from

        def middle = (from + to) / 2.0

        def to_h = {"from" => from, "to" => to, "colour" => colour, "opacity" => opacity, "join" => join}.compact

        # @return [Array<Float>] display codes
        def rgb = colour[1..].scan(/../).map { |byte| byte.hex / 255.0 }
      end

      # @return [String]
      attr_reader :name
      # @return [Quantity]
      attr_reader :quantity
      # @return [Array<Band>] from the lowest on
      attr_reader :bands

      # @param document [Hash]
      # @raise [ParameterError, UnknownIdError] naming the first fault
      def initialize(document, path: "bands")
        Checks.held(path, document, KEYS)
        @given = DEFAULTS.merge(document)
        @name = Checks.text(@given["name"], "#{path}.name", 60)
        @quantity = Quantity.fetch(@given["quantity"])
        CHOICES.each { |key, known| Checks.choice(@given[key], "#{path}.#{key}", known) }
        %w[opacity softness].each { |key| Checks.number(@given[key], "#{path}.#{key}", SHARE) }
        @bands = checked(@given["bands"], "#{path}.bands").freeze
        freeze
      end

      def to_h = {**@given, "bands" => bands.map(&:to_h)}

      # @param drawn [Frame] codes of a display, on the signal's raster
      # @param signal [Signal]
      # @param picture [Quantity::Picture]
      # @param top [Float, nil] of the whole picture, where this is a part of one; see #top
      # @return [Frame]
      def paint(drawn, signal, picture, top: nil)
        values = measured(signal, picture, top)
        weights = bands.map { |band| share(values, band) }
        covered = weights.reduce(:+).clip(0.0, 1.0)
        *colours, opacity = joins.include?("blended") ? blended(values, covered) : mixed(weights, covered)
        luma = signal.luma * GREY
        drawn.with(Numo::NArray.vstack(Array.new(3) { |channel| base(drawn, channel, luma) * (opacity * -1.0 + 1.0) + colours[channel] }))
      end

      # @return [Float, nil] what relative bands are shares of: nearly the highest value; nil of absolute ones
      def top(signal, picture) = relative? ? highest(read(signal, picture)) : nil

      # @return [Array<Float>] share of the picture's pixels within each band
      def shares(signal, picture)
        values = measured(signal, picture)
        bands.map { |band| within(values, band).count_true / values.size.to_f }
      end

      private

      def base(drawn, channel, luma) = (@given["rest"] == "grey") ? luma : drawn.rgb[channel, true]

      def relative? = @given["scale"] == "relative"

      # What is no number is below every band.
      def read(signal, picture)
        values = quantity.read(signal, picture)
        Colour::Piecewise.select(values.isfinite, values, values.new_fill(LIMITS.begin * 10))
      end

      def highest(values) = values.sort[((values.size - 1) * TOP).round]

      def measured(signal, picture, top = nil)
        values = read(signal, picture)
        return values unless relative?

        top ||= highest(values)
        top.positive? ? values * (1.0 / top) : values
      end

      def within(values, band) = values.ge(band.from) & values.lt(band.to)

      def share(values, band)
        soft = @given["softness"] * band.width
        return Numo::SFloat.cast(within(values, band)) if soft.zero?

        rise(values, band.from, soft) - rise(values, band.to, soft)
      end

      def rise(values, limit, width) = Colour::Piecewise.joined((values - limit) * (1.0 / width) + 0.5)

      def opacity_of(band) = band.opacity || @given["opacity"]

      # How each band meets the one above it.
      def joins = bands.each_cons(2).map { |low, _| low.join || @given["join"] }.then { |all| all.empty? ? [@given["join"]] : all }

      # A band's red, green and blue as far as they are seen, and its opacity.
      def seen(band) = [*band.rgb.map { |code| code * opacity_of(band) }, opacity_of(band)]

      # @return [Array<Numo::SFloat>] red, green and blue that are added, and how much they cover
      def mixed(weights, covered)
        total = weights.reduce(:+)
        held = (total.max > 1.0) ? covered / total.clip(1e-6, nil) : nil
        Array.new(4) do |part|
          sum = weights.zip(bands).map { |weight, band| weight * seen(band)[part] }.reduce(:+)
          (held && part == 3) ? sum * held : sum
        end
      end

      def blended(values, covered)
        shares = bands.each_cons(2).zip(joins).map { |(low, high), join| crossing(values, low, high, join) }
        Array.new(4) do |part|
          value = values * 0.0 + seen(bands.first)[part]
          bands.each_cons(2).zip(shares) { |(low, high), u| value += u * (seen(high)[part] - seen(low)[part]) }
          value * covered
        end
      end

      # How far a value has come from a band to the next.
      def crossing(values, low, high, join)
        return Numo::SFloat.cast(values.ge(high.from)) if join == "hard"

        ((values - low.middle) * (1.0 / (high.middle - low.middle))).clip(0.0, 1.0)
      end

      def checked(list, path)
        Checks.reject(path, "1 to #{MOST} bands", list) unless list.is_a?(Array) && list.size.between?(1, MOST)
        made = list.each_with_index.map { |band, index| band(band, "#{path}[#{index}]") }.sort_by(&:from)
        made.each_cons(2) { |low, high| Checks.reject(path, "bands that do not overlap", [high.from, low.to]) if high.from < low.to - 1e-9 }
        made
      end

      def band(document, path)
        Checks.held(path, document, %w[from to colour opacity join])
        from, to = %w[from to].map { |key| Checks.number(document[key], "#{path}.#{key}", LIMITS) }
        Checks.reject("#{path}.to", "more than from", to) unless to > from
        colour, opacity, join = document.values_at("colour", "opacity", "join")
        Checks.reject("#{path}.colour", "#rrggbb", colour) unless colour.is_a?(String) && colour.match?(/\A#\h{6}\z/)
        opacity &&= Checks.number(opacity, "#{path}.opacity", SHARE)
        Checks.choice(join, "#{path}.join", CHOICES["join"]) unless join.nil?
        Band.new(from:, to:, colour: colour.downcase, opacity:, join:)
      end
    end
  end
end
