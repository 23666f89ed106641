# frozen_string_literal: true

module Mordant
  module Colour
    # xy chromaticities of an RGB space (CIE 1931, 2 degree observer).
    Primaries = Struct.new(:name, :red, :green, :blue, :white, keyword_init: true) do
      def initialize(name:, red:, green:, blue:, white:)
        super
        each(&:freeze)
        freeze
      end

      # Source: SMPTE RP 177:1993, normalised primary matrix.
      #
      # @return [Array<Array<Float>>] RGB to XYZ at the space's own white, white Y = 1
      def to_xyz
        columns = [red, green, blue].map { |xy| Adaptation.xyz(xy) }.transpose
        scale = Matrix3.apply(Matrix3.inverse(columns), Adaptation.xyz(white))
        Matrix3.multiply(columns, Matrix3.diagonal(scale))
      end

      # @return [Array<Array<Float>>] XYZ at the space's own white to RGB
      def from_xyz = Matrix3.inverse(to_xyz)

      # @param other [Primaries]
      # @param adaptation [Symbol] see Adaptation.matrix
      # @return [Array<Array<Float>>] RGB here to RGB there, white to white
      def to(other, adaptation: :bradford)
        adapt = Adaptation.matrix(white, other.white, adaptation)
        Matrix3.multiply(other.from_xyz, Matrix3.multiply(adapt, to_xyz))
      end
    end

    # Sources: SMPTE ST 2065-1 (AP0), Academy S-2014-004 (AP1), ITU-R BT.709,
    # ITU-R BT.2020, SMPTE RP 431-2 and EG 432-1 (P3).
    class Primaries
      AP0 = new(name: "AP0", red: [0.7347, 0.2653], green: [0.0, 1.0], blue: [0.0001, -0.077], white: White::ACES)
      AP1 = new(name: "AP1", red: [0.713, 0.293], green: [0.165, 0.83], blue: [0.128, 0.044], white: White::ACES)
      REC709 = new(name: "BT.709", red: [0.64, 0.33], green: [0.30, 0.60], blue: [0.15, 0.06], white: White::D65)
      REC2020 = new(name: "BT.2020", red: [0.708, 0.292], green: [0.170, 0.797], blue: [0.131, 0.046], white: White::D65)
      P3_D65 = new(name: "P3-D65", red: [0.68, 0.32], green: [0.265, 0.69], blue: [0.15, 0.06], white: White::D65)
      P3_D60 = new(name: "P3-D60", red: [0.68, 0.32], green: [0.265, 0.69], blue: [0.15, 0.06], white: White::ACES)
      WIDE_GAMUT_3 = new(name: "Wide Gamut 3", red: [0.684, 0.313], green: [0.221, 0.848], blue: [0.0861, -0.102], white: White::D65)
      P3_DCI = new(name: "P3-DCI", red: [0.68, 0.32], green: [0.265, 0.69], blue: [0.15, 0.06], white: White::DCI)
    end
  end
end
