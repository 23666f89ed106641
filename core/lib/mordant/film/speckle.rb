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
      ACROSS, DOWN, FIRST, SECOND = [0x9E3779B1, 0x85EBCA77, 0x7FEB352D, 0x846CA68B].map { |number| Numo::UInt32[number].freeze }
      BYTE = Numo::UInt32[255].freeze
      MEAN = 4 * 127.5
      SPREAD = Math.sqrt(4 * (256**2 - 1) / 12.0)

      module_function

      # @param window [Grade::Window]
      # @param seed [Integer]
      # @return [Numo::SFloat] [n] of mean 0 and variance 1
      def normal(window, seed)
        across = Numo::UInt32.new(1, window.width).seq(window.left) * ACROSS
        down = Numo::UInt32.new(window.height, 1).seq(window.top) * DOWN
        bits = mixed((mixed(across) + mixed(down) + Numo::UInt32[seed & 0xFFFFFFFF]).reshape!(window.size))
        sum = (bits & BYTE) + ((bits >> 8) & BYTE) + ((bits >> 16) & BYTE) + (bits >> 24)
        ((Numo::SFloat.cast(sum).inplace - MEAN).inplace * (1 / SPREAD)).out_of_place!
      end

      # @param parts [Array<Integer, String>]
      # @return [Integer] of 32 bits
      def seed(*parts) = Digest::SHA256.digest(parts.join("/")).unpack1("L<")

      def mixed(bits)
        bits ^= bits >> 16
        bits *= FIRST
        bits ^= bits >> 15
        bits *= SECOND
        bits ^ (bits >> 16)
      end
      private_class_method :mixed
    end
  end
end
