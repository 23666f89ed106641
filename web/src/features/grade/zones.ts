/** Distance that limits of zones keep, in stops; the core refuses less. */
export const APART = 0.1

/**
 * How far limits are moved from their own places when one of them goes by so many stops,
 * held between its neighbours.
 */
export function limitsMoved(limits: number[], places: number[], index: number, by: number): number[] {
  const at = places[index] ?? 0
  const low = (places[index - 1] ?? -Infinity) + APART
  const high = (places[index + 1] ?? Infinity) - APART
  const to = Math.min(high, Math.max(low, at + by))
  return limits.map((limit, one) => (one === index ? Math.round((limit + to - at) * 1e3) / 1e3 : limit))
}
