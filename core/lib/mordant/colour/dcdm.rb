# frozen_string_literal: true

module Mordant
  module Colour
    # Digital cinema's X'Y'Z'.
    #
    # Source: SMPTE ST 428-1:2019, 6: code = (L / 52.37) ^ (1 / 2.6), white at 48 cd/m2.
    module Dcdm
      WHITE = 48.0 / 52.37
      CURVE = Transfer::Power.new(2.6)

      module_function

      # @return [Encoding] registered
      def register(id)
        Encoding.register(Encoding.new(
          id:, label: "X'Y'Z' of digital cinema", source: "SMPTE ST 428-1:2019", kind: Encoding::DISPLAY, primaries: nil, transfer: CURVE,
          decoding: [Pointwise::Curve.new(CURVE.method(:decode), domain: Pointwise::Curve::LOG), scale(1 / WHITE)],
          encoding: [scale(WHITE), Pointwise::Curve.new(CURVE.method(:encode))]
        ))
      end

      def scale(by) = Pointwise::Matrix.new(Matrix3.diagonal([by] * 3))
    end
  end
end
