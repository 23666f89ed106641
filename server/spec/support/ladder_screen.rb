# frozen_string_literal: true

# A browser's part in a live picture: holds what it is sent, and climbs rungs by the formula.
class LadderScreen
  attr_reader :told, :arrived

  def initialize
    @held = {}
  end

  # @param header [Hash] an answer's
  # @param parts [Hash{String => String}]
  def take(header, parts)
    ladder = header.fetch("ladder")
    if parts["start"]
      @start, @told = values(parts["start"], ladder["range"]), ladder.slice("start", "domain")
      @raster = ladder.values_at("width", "height")
    end
    strands = ladder["rungs"].flatten
    @arrived = parts.keys & (strands.map { |strand| strand["lattice"] } + strands.filter_map { |strand| strand["weight"]&.fetch("name") })
    @held.merge!(parts.slice(*@arrived))
    drawn(ladder["rungs"], ladder["nodes"])
  end

  # What it names in a request.
  def named(step) = {step:, held: @held.keys, **@told.to_h.transform_keys(&:to_sym)}

  # Of a source as decoded, or of what is kept of it.
  def play(codes, width, height, rungs, nodes, parts, range: [[0.0] * 3, [1.0] * 3])
    @held.merge!(parts)
    @start, @raster = values(codes, range), [width, height]
    drawn(rungs, nodes)
  end

  private

  # @return [Numo::DFloat] [3, n] codes of the screen
  def drawn(rungs, nodes)
    rungs.reduce(@start.transpose.dup) do |at, rung|
      rung.reduce(at) do |sum, strand|
        lattice = Mordant::Lut::Lattice.new(values(@held.fetch(strand["lattice"]), strand["range"]), size: nodes, domain: strand["domain"])
        change = Mordant::Pointwise::Chain.new([lattice]).exact(at) - at
        weight = strand["weight"] ? weights(strand["weight"]) : Numo::DFloat.ones(at.shape[1])
        sum + Numo::NArray.vstack(3.times.map { |c| change[c, true] * weight * strand["share"] })
      end
    end
  end

  # Smaller ones are drawn larger, linearly between the middles of their pixels.
  def weights(named)
    width, height = named.values_at("width", "height")
    plane = Numo::DFloat.cast(Numo::UInt16.from_binary(@held.fetch(named["name"]), [height, width])) / 65_535
    across, down = [[width, @raster[0]], [height, @raster[1]]].map { |from, to| Array.new(to) { |i| ((i + 0.5) * from / to - 0.5).clamp(0, from - 1) } }
    rows = down.map { |y| mixed(y, height) { |j| plane[j, true] } }
    Numo::NArray.concatenate(rows.map { |row| Numo::DFloat.cast(across.map { |x| mixed(x, width) { |i| row[i] } }) })
  end

  def mixed(place, edge)
    low = place.floor
    (yield(low) * (1 - place + low)) + (yield([low + 1, edge - 1].min) * (place - low))
  end

  def values(words, range)
    table = Numo::DFloat.cast(Numo::UInt16.from_binary(words)).reshape(words.bytesize / 6, 3) / 65_535
    low, high = range
    3.times { |c| table[true, c] = table[true, c] * (high[c] - low[c]) + low[c] }
    table
  end
end
