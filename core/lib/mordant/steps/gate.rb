# frozen_string_literal: true

module Mordant
  module Steps
    # What a picture goes through in the gate: it weaves, the lamp flickers, dust and scratches lie on it, and the gate's edge shows.
    # All of it within the picture's active area: bars of the source, and what lies beyond a ratio that is set, keep every
    # bit.
    #
    #   woven   l(x, y) = sum(k(x - x_i + w_x) k(y - y_i + w_y) l_i)     k: cubic convolution with a = -1/2; w sways from frame to frame
    #   lamp    l_c = l_c 2^(flicker n + 0.5 tint_c)                     tint: 0.025 log exposure a point, + red, - blue
    #   dirt    l = l + cover m ((0 or LIGHT) - l)                       m: of a speck or a scratch, 0..1
    #   edge    l = l f(d / edge)                                        d: distance from the edge of a rounded rectangle
    #
    # in linear light, n normal with variance 1, f of 3u^2 - 2u^3. Everything but the scratches and the weave differs in each frame by itself.
    #
    # Source: R. G. Keys, Cubic convolution interpolation for digital image processing, IEEE Trans. ASSP 29 (1981).
    class Gate < Step
      FURTHEST = 3.0 # times what weave says: none goes further

      named :gate, "Gate"
      circuit :film
      domain :linear
      reach :area
      scales :amount

      parameter :amount, label: "amount", unit: :share, range: 0.0..1.0, neutral: 0.0, about: "How much of all that follows; 0 is none at all."
      parameter :weave, label: "weave", unit: :share, range: 0.0..0.02, neutral: 0.0005, about: "How far the picture sways, as a share of its height."
      parameter :flicker, label: "flicker", unit: :stops, range: 0.0..0.5, neutral: 0.015, about: "How unsteady the lamp is."
      parameter :tint, label: "tint", unit: :points, range: 0.0..12.0, neutral: 0.3, about: "How unsteady its colour is, red against blue."
      parameter :dust, label: "dust", unit: :ratio, range: 0.0..40.0, neutral: 0.4, about: "Specks in a frame, in the mean."
      parameter :dust_size, label: "size", unit: :share, range: 0.0005..0.02, neutral: 0.0016, about: "Of a speck, as a share of the picture's height."
      parameter :scratches, label: "scratches", unit: :ratio, range: 0.0..6.0, neutral: 0.0, about: "Scratches at a time, in the mean."
      parameter :edge, label: "edge", unit: :share, range: 0.0..0.1, neutral: 0.0, about: "How far the gate's edge reaches into the picture, as a share of its height; it sways with the picture."
      parameter :ratio, label: "mask", unit: :ratio, range: 0.0..4.0, neutral: 0.0, about: "Width to height of what a mask leaves of the picture, beyond which nothing happens; 0: only bars of the source."

      # Nothing but the amount changes a picture.
      def neutral? = amount.zero? || [weave, flicker, tint, dust, scratches, edge].all?(&:zero?)

      # @return [Boolean] it is another in each frame, and not bound to one
      def moving? = !neutral? && @seed.nil?

      # @return [Gate] as it is there; see Grain#at
      def at(frame, seed = nil) = dup.tap { |one| one.instance_variable_set(:@seed, seed || [0, frame]) }

      def fleeting? = true

      def stamps = neutral? ? [] : [@seed].compact

      def margin(raster) = (FURTHEST * amount * weave * raster.height).ceil + 2

      def process(_space) = method(:gated)

      private

      def gated(rgb, moment)
        area = within(moment.active)
        here = Film::Patch.common(area, moment.window) or return rgb.dup

        film, frame = @seed || [0, 0]
        chance = Film::Chance.new("gate", film)
        sway = %w[across down].map { |way| amount * weave * moment.height * chance.swaying(frame, way) }
        patch = Film::Patch.new(rgb, moment, area, here)
        patch.shift(*sway) if sway.any? { |by| !by.zero? }
        patch.gain(lamp(chance, frame))
        dirt = Film::Dirt.new(chance, frame, area.width.fdiv(area.height))
        dirt.specks(dust * amount, dust_size).each { |spot| patch.spot(spot) }
        dirt.scratches(scratches * amount).each { |line| patch.line(line) }
        patch.border(edge * amount, sway) if edge.positive?
        patch.out
      end

      # @return [Grade::Window] what a mask leaves
      def within(active)
        return active if ratio.zero?

        height = [active.height, (active.width / ratio).round].min
        width = [active.width, (active.height * ratio).round].min
        Grade::Window.new(left: active.left + (active.width - width) / 2, top: active.top + (active.height - height) / 2, width:, height:)
      end

      def lamp(chance, frame)
        exposure, tinted = amount * flicker * chance.normal("lamp", frame), amount * tint * chance.normal("tint", frame)
        [0.5, 0.0, -0.5].map { |side| 2.0**exposure * 10**(Film::POINT * tinted * side) }
      end
    end
  end
end
