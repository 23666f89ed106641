# frozen_string_literal: true

module Mordant
  module Colour
    # What code values mean, and the operations between them and the connection
    # space of their kind (see Colour).
    class Encoding
      SCENE = :scene
      DISPLAY = :display
      # A curve without primaries: "linear" and the like, for the numbers of a curve by itself.
      SIGNAL = :signal

      # The way into the scene connection space from the display one, and back.
      SCENE_TO_DISPLAY = Matrix3.multiply(Adaptation.matrix(White::ACES, White::D65), Primaries::AP0.to_xyz).freeze
      DISPLAY_TO_SCENE = Matrix3.inverse(SCENE_TO_DISPLAY).freeze

      # Before the id of an encoding: its values as the codes of Transfer::HalfCode.
      FLOATS = "floats:"

      extend Registry

      class << self
        def family = "encoding"

        def folder = Encodings

        # @return [OwnEncodings] those of the person's library
        def own = (@own ||= OwnEncodings.new)

        # @param id [String] also with FLOATS before it
        def fetch(id)
          return in_half_codes(fetch(id.delete_prefix(FLOATS))) if id.to_s.start_with?(FLOATS)

          (built_in?(id) ? super : own.fetch(id)) || super
        end

        def known?(id) = super || own.all.any? { |one| one.id == id }

        # @return [Array<Encoding>] by id
        def all = (built_in + own.all).sort_by(&:id)

        # @param primaries [Primaries]
        # @param adaptation [Symbol] how its white meets the connection white
        # @param to_ap0 [Array<Array<Float>>, nil] a published matrix, where the primaries alone do not give it
        # @return [Encoding] of light as a scene sends it
        def scene(id, primaries:, transfer: Transfer::Linear, adaptation: :bradford, to_ap0: nil, **about)
          matrix = to_ap0 || primaries.to(Primaries::AP0, adaptation:)
          register(new(id:, kind: SCENE, primaries:, transfer:, **ways(transfer, matrix), **about))
        end

        # @return [Encoding] of light as a display sends it
        def display(id, primaries:, transfer:, **about)
          adapt = Adaptation.matrix(primaries.white, White::D65)
          matrix = Matrix3.multiply(adapt, primaries.to_xyz)
          register(new(id:, kind: DISPLAY, primaries:, transfer:, **ways(transfer, matrix), **about))
        end

        # @return [Encoding] of a signal by its curve alone, whatever its primaries
        def signal(id, transfer:, **about)
          register(new(id:, kind: SIGNAL, primaries: nil, transfer:, **ways(transfer, nil), **about))
        end

        # @param base [Encoding] of values that a file holds as floats
        # @return [Encoding] the same from the codes they are decoded as
        def in_half_codes(base)
          @floats ||= {}
          @floats[base] ||= new(id: "#{FLOATS}#{base.id}", label: base.label, source: base.source, kind: base.kind, primaries: base.primaries, transfer: Transfer::HalfCode,
            decoding: [Pointwise::Curve.new(Transfer::HalfCode.method(:decode), domain: Pointwise::Curve::LOG), *base.decoding], encoding: base.encoding, own: base.own?)
        end

        # @param matrix [Array<Array<Float>>, nil] linear RGB to the connection space
        # @return [Hash] decoding and encoding
        def ways(transfer, matrix)
          decode, encode = [[:decode, Pointwise::Curve::LOG], [:encode, Pointwise::Curve::FLOAT]].map do |direction, domain|
            (transfer == Transfer::Linear) ? [] : [Pointwise::Curve.new(transfer.method(direction), domain:)]
          end
          return {decoding: decode, encoding: encode} unless matrix

          {decoding: [*decode, Pointwise::Matrix.new(matrix)], encoding: [Pointwise::Matrix.new(Matrix3.inverse(matrix)), *encode]}
        end
      end

      attr_reader :id, :label, :source, :kind, :primaries, :transfer

      # @return [#encode, #decode] the curve as its publication prints it
      attr_reader :signal_curve

      # @return [Array] operations from code values to the connection space
      attr_reader :decoding

      # @return [Array] operations from the connection space to code values
      attr_reader :encoding

      # @param transfer [#encode, #decode] the curve of a channel by itself
      # @param own [Boolean] of a person's library
      def initialize(id:, label:, source:, kind:, primaries:, transfer:, decoding:, encoding:, signal_curve: transfer, own: false)
        @id, @label, @source, @kind, @own = id, label, source, kind, own
        @primaries, @transfer, @signal_curve = primaries, transfer, signal_curve
        @decoding, @encoding = decoding.freeze, encoding.freeze
        freeze
      end

      def scene? = kind == SCENE

      # @return [Boolean] code values of footage or of a screen
      def pictures? = kind != SIGNAL

      # @return [Boolean] values are proportional to light
      def linear? = transfer == Transfer::Linear

      # @return [Boolean] codes stand for cd/m2 rather than for shares of a display's white
      def absolute? = kind == DISPLAY && [Transfer::PQ, Transfer::HLG].include?(transfer)

      # Of red, green and blue in luma: ITU-R BT.709, item 3.2, and BT.2020, table 4.
      LUMA_WEIGHTS = {"BT.709" => [0.2126, 0.7152, 0.0722].freeze, "BT.2020" => [0.2627, 0.6780, 0.0593].freeze}.freeze

      # @return [Array<Float>] of red, green and blue in luma; of other primaries their luminances
      def luma_weights = LUMA_WEIGHTS.fetch(primaries&.name) { primaries ? primaries.to_xyz[1] : LUMA_WEIGHTS.fetch("BT.709") }

      def own? = @own

      # @return [Float, nil] code of scene light 0.18; nil unless of a scene
      def mid_grey = (Pointwise::Chain.new(encoding).exact(Numo::DFloat[[0.18]] * Numo::DFloat.ones(3, 1))[1, 0] if scene?)

      # @return [Float, nil] scene light of code 1.0, where the encoding ends; nil unless of a scene
      def ceiling = (Pointwise::Chain.new(decoding).exact(Numo::DFloat.ones(3, 1))[1, 0] if scene?)

      def to_h
        {id:, label:, kind: kind.to_s, linear: linear?, primaries: primaries&.name, source:, own: own?,
         mid_grey: mid_grey&.round(5), ceiling: ceiling&.round(3)}
      end
    end
  end
end
