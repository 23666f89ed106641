import type { Point } from './plane'

/** A point of a shape: its place, its handles as they are off it, and feathers of its own. */
export interface ShapePoint {
  at: Point
  into: Point
  out: Point
  feather: Point
}

export const read = (row: number[]): ShapePoint => ({ at: [row[0] ?? 0, row[1] ?? 0], into: [row[2] ?? 0, row[3] ?? 0], out: [row[4] ?? 0, row[5] ?? 0], feather: [row[6] ?? 0, row[7] ?? 0] })
export const written = ({ at, into, out, feather }: ShapePoint): number[] => [...at, ...into, ...out, ...feather]

export const straight = (from: ShapePoint, to: ShapePoint) => from.out.every((one) => one === 0) && to.into.every((one) => one === 0)
export const smooth = (point: ShapePoint) => [...point.into, ...point.out].some((one) => one !== 0)

const plus = (a: Point, b: Point, times = 1): Point => [a[0] + b[0] * times, a[1] + b[1] * times]
const between = (a: Point, b: Point, share: number): Point => [a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share]

/** As the path of a drawing. */
export function path(points: ShapePoint[], shown: (point: Point) => Point): string {
  if (points.length === 0) return ''
  const text = (point: Point) =>
    shown(point)
      .map((one) => one.toFixed(2))
      .join(' ')
  const edges = points.map((from, index) => {
    const to = points[(index + 1) % points.length] as ShapePoint
    return straight(from, to) ? `L${text(to.at)}` : `C${text(plus(from.at, from.out))} ${text(plus(to.at, to.into))} ${text(to.at)}`
  })
  return `M${text((points[0] as ShapePoint).at)}${edges.join('')}Z`
}

/** A place on an edge. */
export function along(points: ShapePoint[], edge: number, share: number): Point {
  const [from, to] = [points[edge], points[(edge + 1) % points.length]] as [ShapePoint, ShapePoint]
  if (straight(from, to)) return between(from.at, to.at, share)
  const [a, b, c, d] = [from.at, plus(from.at, from.out), plus(to.at, to.into), to.at]
  const [ab, bc, cd] = [between(a, b, share), between(b, c, share), between(c, d, share)]
  return between(between(ab, bc, share), between(bc, cd, share), share)
}

const STEPS = 24

/** The edge that is nearest to a place, and where on it. */
export function nearest(points: ShapePoint[], place: Point): { edge: number; share: number } {
  let best = { edge: 0, share: 0.5, far: Infinity }
  points.forEach((_, edge) => {
    for (let step = 1; step < STEPS; step++) {
      const [x, y] = along(points, edge, step / STEPS)
      const far = Math.hypot(x - place[0], y - place[1])
      if (far < best.far) best = { edge, share: step / STEPS, far }
    }
  })
  return best
}

/** With a point on an edge, which changes the line nowhere (de Casteljau). */
export function split(points: ShapePoint[], edge: number, share: number): ShapePoint[] {
  const next = (edge + 1) % points.length
  const [from, to] = [points[edge], points[next]] as [ShapePoint, ShapePoint]
  const feather = between(from.feather, to.feather, share)
  if (straight(from, to)) return [...points.slice(0, edge + 1), { at: between(from.at, to.at, share), into: [0, 0], out: [0, 0], feather }, ...points.slice(edge + 1)]
  const [a, b, c, d] = [from.at, plus(from.at, from.out), plus(to.at, to.into), to.at]
  const [ab, bc, cd] = [between(a, b, share), between(b, c, share), between(c, d, share)]
  const [abc, bcd] = [between(ab, bc, share), between(bc, cd, share)]
  const at = between(abc, bcd, share)
  const fresh: ShapePoint = { at, into: plus(abc, at, -1), out: plus(bcd, at, -1), feather }
  const made = points.map((point, index) => (index === edge ? { ...point, out: plus(ab, a, -1) } : index === next ? { ...point, into: plus(cd, d, -1) } : point))
  return [...made.slice(0, edge + 1), fresh, ...made.slice(edge + 1)]
}

const THIRD = 1 / 3

/** With a point made smooth, along its neighbours, or a corner. */
export function turned(points: ShapePoint[], index: number): ShapePoint[] {
  const point = points[index]
  const [before, next] = [points.at(index - 1), points[(index + 1) % points.length]]
  if (!point || !before || !next) return points
  if (smooth(point)) return points.map((one, at) => (at === index ? { ...one, into: [0, 0], out: [0, 0] } : one))
  const way = plus(next.at, before.at, -1)
  const long = Math.hypot(...way) || 1
  const reach = (other: ShapePoint) => (Math.hypot(other.at[0] - point.at[0], other.at[1] - point.at[1]) * THIRD) / long
  const [back, on] = [reach(before), reach(next)]
  return points.map((one, at) => (at === index ? { ...one, into: [-way[0] * back, -way[1] * back], out: [way[0] * on, way[1] * on] } : one))
}

/** With a handle elsewhere; the other one keeps its length and stays in line with it, unless it is alone. */
export function bent(points: ShapePoint[], index: number, side: 'into' | 'out', off: Point, alone: boolean): ShapePoint[] {
  const other = side === 'into' ? 'out' : 'into'
  return points.map((point, at) => {
    if (at !== index) return point
    const kept = Math.hypot(...point[other])
    const long = Math.hypot(...off) || 1
    return { ...point, [side]: off, ...(alone ? {} : { [other]: [(-off[0] / long) * kept, (-off[1] / long) * kept] as Point }) }
  })
}

/** Four points near enough to an ellipse. */
export function rounded([x, y]: Point, [across, down]: Point): ShapePoint[] {
  const arm = 0.5523
  return (
    [
      [1, 0, 0, -1],
      [0, 1, 1, 0],
      [-1, 0, 0, 1],
      [0, -1, -1, 0],
    ] as const
  ).map(([px, py, hx, hy]) => ({ at: [x + px * across, y + py * down], into: [hx * arm * across, hy * arm * down], out: [-hx * arm * across, -hy * arm * down], feather: [0, 0] }))
}

/** A line beside the shape's, so far outside or, below 0, inside; drawn in straight pieces. */
export function beside(points: ShapePoint[], far: (point: ShapePoint, next: ShapePoint, share: number) => number): Point[] {
  const area = points.reduce((sum, { at }, index) => sum + at[0] * (points[(index + 1) % points.length]?.at[1] ?? 0) - at[1] * (points[(index + 1) % points.length]?.at[0] ?? 0), 0)
  const out = area > 0 ? 1 : -1
  return points.flatMap((point, edge) => {
    const next = points[(edge + 1) % points.length] as ShapePoint
    const shares = straight(point, next) ? [0.001, 0.999] : [0.001, 0.2, 0.4, 0.6, 0.8, 0.999]
    return shares.map((share): Point => {
      const [here, on] = [along(points, edge, share), along(points, edge, Math.min(1, share + 0.001))]
      const [dx, dy] = [on[0] - here[0], on[1] - here[1]]
      const long = Math.hypot(dx, dy) || 1
      const by = far(point, next, share) * out
      return [here[0] + (dy / long) * by, here[1] - (dx / long) * by]
    })
  })
}
