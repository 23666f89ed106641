# frozen_string_literal: true

module Mordant
  module Colour
    # What code values mean.
    #
    # to_connection and from_connection are matrices between the space's own
    # linear RGB and its connection space (see Colour).
    class Encoding
      SCENE = :scene
      DISPLAY = :display

      # The way into the scene connection space from the display one, and back.
      SCENE_TO_DISPLAY = Matrix3.multiply(Adaptation.matrix(White::ACES, White::D65), Primaries::AP0.to_xyz).freeze
      DISPLAY_TO_SCENE = Matrix3.inverse(SCENE_TO_DISPLAY).freeze

      extend Registry

      class << self
        def family = "encoding"

        def folder = Encodings

        # @param primaries [Primaries, nil]
        # @param adaptation [Symbol] how its white meets the connection white
        # @return [Encoding] of light as a scene sends it
        def scene(id, label:, source:, primaries:, transfer: Transfer::Linear, adaptation: :bradford, to_ap0: nil)
          matrix = to_ap0 || primaries.to(Primaries::AP0, adaptation:)
          register(new(id:, label:, source:, kind: SCENE, primaries:, transfer:, matrix:))
        end

        # @return [Encoding] of light as a display sends it
        def display(id, label:, source:, primaries:, transfer:)
          adapt = Adaptation.matrix(primaries.white, White::D65)
          matrix = Matrix3.multiply(adapt, primaries.to_xyz)
          register(new(id:, label:, source:, kind: DISPLAY, primaries:, transfer:, matrix:))
        end
      end

      attr_reader :id, :label, :source, :kind, :primaries, :transfer

      # @param matrix [Array<Array<Float>>] linear RGB to the connection space
      def initialize(id:, label:, source:, kind:, primaries:, transfer:, matrix:)
        @id, @label, @source, @kind = id, label, source, kind
        @primaries, @transfer = primaries, transfer
        @decoding = [*(curve(:decode, Pointwise::Curve::LOG) unless linear?), Pointwise::Matrix.new(matrix)].freeze
        @encoding = [Pointwise::Matrix.new(Matrix3.inverse(matrix)),
          *(curve(:encode, Pointwise::Curve::FLOAT) unless linear?)].freeze
        freeze
      end

      def scene? = kind == SCENE

      # @return [Boolean] values are proportional to light
      def linear? = transfer == Transfer::Linear

      # @return [Array] operations from code values to the connection space
      attr_reader :decoding

      # @return [Array] operations from the connection space to code values
      attr_reader :encoding

      def to_h
        {id:, label:, kind: kind.to_s, linear: linear?, primaries: primaries&.name, source:}
      end

      private

      def curve(direction, domain) = Pointwise::Curve.new(transfer.method(direction), domain:)
    end
  end
end
