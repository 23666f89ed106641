# frozen_string_literal: true

# What kernels make beside what Numo makes.
module Kernels
  # Without kernels.
  def one_by_one
    allow(Mordant::Pointwise::Compiler).to receive(:here?).and_return(false)
    yield
  ensure
    allow(Mordant::Pointwise::Compiler).to receive(:here?).and_call_original
  end

  # Numbers of -1 to 2, and some that are none or far beyond.
  def odd_plane(height, width)
    rows = Numo::SFloat.new(height, width).rand * 3 - 1
    [Float::NAN, Float::INFINITY, -Float::INFINITY, 1e-30, -0.0, 70_000.0].each_with_index { |odd, at| rows[(at * 3) % height, (at * 29) % width] = odd }
    rows
  end

  # Bits, as NaN is not equal to itself.
  def bits(floats) = Numo::Int32.from_binary(floats.to_binary)
end
