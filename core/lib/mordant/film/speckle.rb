# frozen_string_literal: true

require "digest"

module Mordant
  module Film
    # Noise that belongs to its place: a pixel's value depends on where it is in the whole picture and on a seed alone, so that
    # windows meet without a boundary, and every machine makes the same bits.
    #
    # Bits are those of a 32-bit hash with two multiplications (C. Wellons, Prospecting for hash functions, 2018); a value is
    # the sum of its four bytes, which is nearly normal (Irwin and Hall).
    module Speckle
      ACROSS, DOWN, FIRST, SECOND = 0x9E3779B1, 0x85EBCA77, 0x7FEB352D, 0x846CA68B
      BYTES = [0, 8, 16, 24].freeze # bits before each
      MEAN = 4 * 127.5
      SPREAD = Math.sqrt(4 * (256**2 - 1) / 12.0)

      module_function

      # @param window [Grade::Window]
      # @param seed [Integer]
      # @return [Numo::SFloat] [n] of mean 0 and variance 1
      def normal(window, seed)
        across = mixed(times(Numo::UInt32.new(1, window.width).seq(window.left), ACROSS))
        down = mixed(times(Numo::UInt32.new(window.height, 1).seq(window.top), DOWN)) + Numo::UInt32[seed & 0xFFFFFFFF]
        Pointwise.swept((across + down).reshape!(window.size), of: :wholes) do |place|
          bits = mixed(place)
          (BYTES.map { |before| byte(bits >> before) }.reduce(:+) - MEAN) * (1 / SPREAD)
        end
      end

      # @param parts [Array<Integer, String>]
      # @return [Integer] of 32 bits
      def seed(*parts) = Digest::SHA256.digest(parts.join("/")).unpack1("L<")

      # @param bits [Numo::UInt32, Pointwise::Recorded]
      def mixed(bits)
        bits ^= bits >> 16
        bits = times(bits, FIRST)
        bits ^= bits >> 15
        bits = times(bits, SECOND)
        bits ^ (bits >> 16)
      end

      # Round at 2^32.
      def times(bits, number) = bits.is_a?(Pointwise::Recorded) ? bits.times(number) : bits * Numo::UInt32[number]

      # The last byte, as a float.
      def byte(bits) = bits.is_a?(Pointwise::Recorded) ? (bits & 255).float : Numo::SFloat.cast(bits & Numo::UInt32[255])
      private_class_method :mixed, :times, :byte
    end
  end
end
