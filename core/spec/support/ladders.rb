# frozen_string_literal: true

# Ladders as a screen climbs them, from what it is sent: numbers of 16 bits and their ranges.
module Ladders
  module_function

  # @param words [String] 16-bit, of values pixel by pixel
  # @param range [Array<Array<Float>>] what 0 and 65535 stand for
  # @return [Numo::DFloat] [n, 3]
  def values(words, range)
    table = Numo::DFloat.cast(Numo::UInt16.from_binary(words)).reshape(words.bytesize / 6, 3) / 65_535
    low, high = range
    3.times { |c| table[true, c] = table[true, c] * (high[c] - low[c]) + low[c] }
    table
  end

  # @param sent [Mordant::Grade::Ladder::Sent]
  # @return [Numo::DFloat] [3, n] codes of the screen
  def climbed(ladder, sent, weights, width: nil)
    ladder.rungs.reduce(values(sent.words, sent.range).transpose.dup) do |at, rung|
      rung.reduce(at) do |sum, strand|
        next sum + (looked_up(strand.nodes, at) - at) * laid(strand.noise, at.shape[1], width) * strand.share if strand.noise

        weight = strand.entry ? Numo::DFloat.cast(Numo::UInt16.from_binary(Mordant::Grade::Ladder::Sent.weights(weights.fetch(strand.entry)))) / 65_535 : 1.0
        change = looked_up(strand.nodes, at) - at
        sum + Numo::NArray.vstack(3.times.map { |c| change[c, true] * weight * strand.share })
      end
    end
  end

  # A tile laid side by side from where the picture's corner lies in it.
  def laid((tile, step), pixels, width)
    told = tile.to_h_at(step)
    left, top = told[:at]
    noise = (values(tile.words, [[0.0] * 3, [1.0] * 3]) * 2 - 1) * told[:reach]
    place = Numo::Int32.new(pixels).seq
    noise[((place / width + top) % told[:edge]) * told[:edge] + (place % width + left) % told[:edge], true].transpose.dup
  end

  def looked_up(nodes, at)
    lattice = Mordant::Lut::Lattice.new(values(nodes.words, nodes.range), size: Mordant::Grade::Ladder::NODES, domain: nodes.domain)
    Mordant::Pointwise::Chain.new([lattice]).exact(at)
  end
end
