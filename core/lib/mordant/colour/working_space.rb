# frozen_string_literal: true

module Mordant
  module Colour
    # The space grades are made in: the encoding steps count in, the linear one
    # with the same primaries, and its tone axis.
    #
    # The tone axis runs from 0.0 at no light to 1.0 at white; lift, gamma, gain,
    # offset and the staves count in it. White of a scene-referred log space is
    # where the standard SDR rendering reaches display white, 6.5 stops above mid
    # grey; of scene-linear light it is 1.0, a diffuse white; of a display-referred
    # space it is display white.
    class WorkingSpace
      MID_GREY = 0.18
      # Pivots a picture of the tone axis is marked at, stops about mid grey.
      PIVOTS = (-16..16).map { |half| half / 2.0 }.freeze

      # @return [String]
      attr_reader :id, :label, :about
      # @return [String] encoding ids
      attr_reader :log, :linear
      # @return [Float] code values
      attr_reader :black, :middle, :white
      # @return [#encode, #decode]
      attr_reader :transfer

      class << self
        # @return [Array<WorkingSpace>]
        def all
          @all ||= [
            new(id: "acescct", label: "ACEScct", log: "acescct", linear: "acescg", white: MID_GREY * 2**6.5,
              about: "Scene-referred, logarithmic with a toe: controls feel as on scanned film."),
            new(id: "acescc", label: "ACEScc", log: "acescc", linear: "acescg", white: MID_GREY * 2**6.5,
              about: "Scene-referred, logarithmic to the blacks: lift acts more on them."),
            new(id: "acescg", label: "ACEScg", log: "acescg", linear: "acescg", white: 1.0,
              about: "Scene-referred light: controls act on light itself."),
            new(id: "display", label: "display-referred, BT.709 gamma 2.4", log: "rec709-bt1886", linear: "rec709-display-linear", white: 1.0,
              about: "For finished programmes: pictures stay as a display shows them, no rendering is applied to them.")
          ].freeze
        end

        # @raise [UnknownIdError]
        def fetch(id) = all.find { |space| space.id == id } || raise(UnknownIdError.new("working space", id, all.map(&:id)))

        def default = fetch("acescct")
      end

      # @param white [Float] light at the end of the tone axis
      def initialize(id:, label:, about:, log:, linear:, white:)
        @id, @label, @about, @log, @linear = id, label, about, log, linear
        @transfer = Encoding.fetch(log).transfer
        @luminance_weights = Encoding.fetch(linear).primaries.to_xyz[1].freeze
        @black, @middle, @white = [0.0, MID_GREY, white].map { |light| encode(light) }
        freeze
      end

      # @return [Boolean] values describe a scene, so that a view needs a rendering
      def scene? = Encoding.fetch(log).scene?

      # @param domain [Symbol] :log or :linear
      # @return [String] encoding id
      def encoding_of(domain) = {log:, linear:}.fetch(domain)

      # @return [Symbol] how a function of the space's codes is tabulated (Pointwise::Curve)
      def tabulation = Encoding.fetch(log).linear? ? Pointwise::Curve::FLOAT : Pointwise::Curve::LOG

      # @param light [Float] linear
      # @return [Float] code value
      def encode(light) = @transfer.encode(Numo::DFloat[light])[0]

      # @param code [Float]
      # @return [Float] linear
      def decode(code) = @transfer.decode(Numo::DFloat[code])[0]

      # @param stops [Float] about mid grey
      # @return [Float] code value
      def code_at(stops) = encode(MID_GREY * 2.0**stops)

      # @param code [Float]
      # @return [Float] place on the tone axis
      def tone(code) = (code - black) / (white - black)

      # @return [Array<Float>] of a linear red, green, blue; they add up to 1
      attr_reader :luminance_weights

      # pivots: stops about mid grey and their place on the tone axis
      def to_h
        {id:, label:, about:, log:, linear:, scene: scene?, black:, middle:, white:,
         pivots: PIVOTS.map { |stops| [stops, tone(code_at(stops)).round(5)] }}
      end
    end
  end
end
