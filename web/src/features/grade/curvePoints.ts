import type { CurvePoint, CurveSpec } from '@/api/declared'

/** Points of a curve with one changed; none of these writes to what it is given. */

const APART = 0.004

const held = (value: number, low: number, high: number) => Math.min(high, Math.max(low, value))
const rounded = (x: number) => Math.round(x * 1e4) / 1e4

/** The value of a neutral curve at a place. */
export const restAt = (spec: CurveSpec, x: number) => (spec.rest === 'diagonal' ? x : 0)

/** Where a point may go: within the curve's range and between its neighbours. */
export function placed(points: CurvePoint[], index: number, [x, y]: CurvePoint, spec: CurveSpec): CurvePoint {
  const low = index > 0 ? (points[index - 1]?.[0] ?? spec.first) + APART : spec.first
  const high = index < points.length - 1 ? (points[index + 1]?.[0] ?? spec.last) - APART : spec.last
  return [rounded(held(x, low, high)), rounded(held(y, spec.min, spec.max))]
}

export function moved(points: CurvePoint[], index: number, to: CurvePoint, spec: CurveSpec): CurvePoint[] {
  return points.map((point, at) => (at === index ? placed(points, index, to, spec) : point))
}

/**
 * With a point more. The first point of a tone curve brings both ends along, so that
 * black and white stay.
 *
 * @returns the points and the new one's index; null where there is no room
 */
export function added(points: CurvePoint[], point: CurvePoint, spec: CurveSpec): { points: CurvePoint[]; index: number } | null {
  const base: CurvePoint[] =
    points.length === 0 && spec.rest === 'diagonal'
      ? [
          [0, 0],
          [1, 1],
        ]
      : points
  if (base.some(([x]) => Math.abs(x - point[0]) < APART)) return null
  const found = base.findIndex(([x]) => x > point[0])
  const index = found < 0 ? base.length : found
  const next: CurvePoint[] = [...base.slice(0, index), point, ...base.slice(index)]
  return { points: moved(next, index, point, spec), index }
}

/** Without a point; a curve that is left with its untouched ends has none. */
export function removed(points: CurvePoint[], index: number, spec: CurveSpec): CurvePoint[] {
  const left = points.filter((_, at) => at !== index)
  return left.every(([x, y]) => y === restAt(spec, x)) ? [] : left
}
