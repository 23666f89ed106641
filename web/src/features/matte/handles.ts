import type { ParameterValue } from '@/api/declared'
import { beside, bent, nearest, path, read, smooth, split, turned, written, type ShapePoint } from './outline'
import { inverse, mapped, mappedOff, placing, type PlaneMap, type Point } from './plane'

type Values = Record<string, ParameterValue>

/** Something a shape is pulled by. */
export interface ShapeHandle {
  id: string
  words: string
  /** In the shape's own plane, before a path carries it, and on the screen. */
  at: Point
  on: Point
  look: 'point' | 'corner' | 'arm' | 'ring'
  /** Parameters with it pulled so far in that plane; alone: without what else follows it. */
  moved: (values: Values, by: Point, alone: boolean) => Values | null
  removed?: (values: Values) => Values | null
  /** From smooth to corner and back. */
  turned?: (values: Values) => Values | null
}

/** A shape as it is drawn. */
export interface DrawnShape {
  line: string
  feathers: string[]
  /** Lines from handles to what they belong to. */
  arms: string[]
  handles: ShapeHandle[]
  middle: Point
  shifted: (by: Point) => Values | null
  /** With a point on its line; of shapes that have any. */
  added?: (at: Point) => { values: Values; id: string }
}

const FEWEST = 3 // points
const ARM = 0.14 // heights from the pivot to what turns and scales
const pair = (values: Values, name: string, neutral: number): Point => (values[name] as Point | undefined) ?? [neutral, neutral]
const plus = (a: Point, b: Point): Point => [a[0] + b[0], a[1] + b[1]]
const line = (points: Point[]) => (points.length ? `M${points.map((point) => point.map((one) => one.toFixed(1)).join(' ')).join('L')}` : '')

/**
 * @param shown from the shape's own plane to the screen
 * @param wide the picture's width in its heights
 */
export function handlesOf(kind: string, values: Values, shown: (point: Point) => Point, wide = 16 / 9): DrawnShape {
  if (kind === 'outline') return outline(values, shown)
  if (kind === 'gradient') return gradient(values, shown)
  return kind === 'ellipse' ? ellipse(values, shown) : frame(values, shown, wide)
}

function outline(values: Values, shown: (point: Point) => Point): DrawnShape {
  const points = ((values['points'] as number[][] | undefined) ?? []).map(read)
  const [move, scale, pivot] = [pair(values, 'move', 0), pair(values, 'scale', 1), pair(values, 'pivot', 0)]
  const map = placing(move, Number(values['turn'] ?? 0), scale, pivot)
  const back = inverse(map)
  const placed = (point: Point) => shown(mapped(point, map))
  const keep = (made: ShapePoint[]): Values => ({ points: made.map(written) })
  const pulled = (by: Point): Point => mappedOff([0, 0], by, back)
  const feather = pair(values, 'feather', 0)
  const far = (side: 0 | 1) => (a: ShapePoint, b: ShapePoint, share: number) => (side === 1 ? 1 : -1) * (feather[side] + a.feather[side] + (b.feather[side] - a.feather[side]) * share)
  const feathered = ([0, 1] as const).filter((side) => feather[side] > 0 || points.some((one) => one.feather[side] > 0))
  const at = (index: number, by: Point): ShapePoint[] => points.map((one, place) => (place === index ? { ...one, at: plus(one.at, by) } : one))

  const corners = points.map((point, index): ShapeHandle => ({
    id: `point ${index}`,
    words: `point ${index + 1}`,
    at: mapped(point.at, map),
    on: placed(point.at),
    look: smooth(point) ? 'point' : 'corner',
    moved: (_, by) => keep(at(index, pulled(by))),
    removed: () => (points.length > FEWEST ? keep(points.filter((_, place) => place !== index)) : null),
    turned: () => keep(turned(points, index)),
  }))
  const arms = points.flatMap((point, index) =>
    (['into', 'out'] as const)
      .filter((side) => point[side].some((one) => one !== 0))
      .map((side): ShapeHandle => ({
        id: `${side} ${index}`,
        words: `handle of point ${index + 1}`,
        at: mapped(plus(point.at, point[side]), map),
        on: placed(plus(point.at, point[side])),
        look: 'arm',
        moved: (_, by, alone) => keep(bent(points, index, side, plus(point[side], pulled(by)), alone)),
      })),
  )
  const whole = wholeHandles(values, shown)
  return {
    line: path(points, placed),
    feathers: feathered.map((side) => `${line(beside(points, far(side)).map(placed))}Z`),
    arms: [whole.arm, ...arms.map((handle) => `M${placed((points[Number(handle.id.split(' ')[1])] as ShapePoint).at).join(' ')}L${handle.on.join(' ')}`)],
    handles: [...whole.handles, ...arms, ...corners],
    middle: whole.middle,
    shifted: (by) => ({ move: plus(move, by) }),
    added: (to) => {
      const { edge, share } = nearest(points, mapped(to, back))
      return { values: keep(split(points, edge, share)), id: `point ${edge + 1}` }
    },
  }
}

/** What something placed is turned, scaled and pivoted by as a whole. */
function wholeHandles(values: Values, shown: (point: Point) => Point): { handles: ShapeHandle[]; arm: string; middle: Point } {
  const [move, scale, pivot] = [pair(values, 'move', 0), pair(values, 'scale', 1), pair(values, 'pivot', 0)]
  const turn = Number(values['turn'] ?? 0)
  const map = placing(move, turn, scale, pivot)
  const middle = plus(pivot, move)
  const most = Math.max(scale[0], scale[1])
  const arm = mappedOff([0, 0], [ARM, 0], placing([0, 0], turn, [most, most], [0, 0]))
  const tip = plus(middle, arm)
  const pulls: ShapeHandle[] = [
    { id: 'pivot', words: 'pivot', at: middle, on: shown(middle), look: 'ring', moved: (_, by) => ({ pivot: plus(pivot, by), move: stays(map, plus(pivot, by), scale, turn, move) }) },
    {
      id: 'turn',
      words: 'turn and scale',
      at: tip,
      on: shown(tip),
      look: 'ring',
      moved: (_, by) => {
        const to = plus(arm, by)
        const grown = Math.max(0.05, Math.hypot(...to) / Math.hypot(...arm))
        const angle = (Math.atan2(to[1], to[0]) - Math.atan2(arm[1], arm[0])) * (180 / Math.PI)
        return { turn: turn + ((angle + 540) % 360) - 180, scale: [scale[0] * grown, scale[1] * grown] }
      },
    },
  ]
  return { handles: pulls, arm: `M${shown(middle).join(' ')}L${shown(tip).join(' ')}`, middle }
}

/** A matte from elsewhere: the frame it is cropped by, and where what is left is put. */
function frame(values: Values, shown: (point: Point) => Point, wide: number): DrawnShape {
  const [left = 0, right = 0, top = 0, bottom = 0] = (values['crop'] as number[] | undefined) ?? []
  const move = pair(values, 'move', 0)
  const map = placing(move, Number(values['turn'] ?? 0), pair(values, 'scale', 1), pair(values, 'pivot', 0))
  const back = inverse(map)
  const placed = (point: Point) => shown(mapped(point, map))
  const [x0, x1, y0, y1] = [(left - 0.5) * wide, (0.5 - right) * wide, top - 0.5, 0.5 - bottom]
  const rim = (a: number, b: number, c: number, d: number) =>
    line(
      [
        [a, c],
        [b, c],
        [b, d],
        [a, d],
      ].map((corner) => placed(corner as Point)),
    )
  const edge = (index: number, words: string, at: Point, axis: 0 | 1, sign: number): ShapeHandle => ({
    id: `crop ${index}`,
    words,
    at: mapped(at, map),
    on: placed(at),
    look: 'corner',
    moved: (_, by) => {
      const far = mappedOff([0, 0], by, back)[axis] / (axis === 0 ? wide : 1)
      const row = [left, right, top, bottom]
      return { crop: row.map((one, place) => (place === index ? Math.min(1, Math.max(0, one + far * sign)) : one)) }
    },
  })
  const whole = wholeHandles(values, shown)
  return {
    line: `${rim(x0, x1, y0, y1)}Z`,
    feathers: left + right + top + bottom > 0 ? [`${rim(-wide / 2, wide / 2, -0.5, 0.5)}Z`] : [],
    arms: [whole.arm],
    handles: [...whole.handles, edge(0, 'crop left', [x0, (y0 + y1) / 2], 0, 1), edge(1, 'crop right', [x1, (y0 + y1) / 2], 0, -1), edge(2, 'crop top', [(x0 + x1) / 2, y0], 1, 1), edge(3, 'crop bottom', [(x0 + x1) / 2, y1], 1, -1)],
    middle: whole.middle,
    shifted: (by) => ({ move: plus(move, by) }),
  }
}

/** The move that leaves a shape where it is while its pivot goes elsewhere. */
function stays(map: PlaneMap, pivot: Point, scale: Point, turn: number, move: Point): Point {
  const fresh = placing(move, turn, scale, pivot)
  return [move[0] + (map[2] ?? 0) - (fresh[2] ?? 0), move[1] + (map[5] ?? 0) - (fresh[5] ?? 0)]
}

function ellipse(values: Values, shown: (point: Point) => Point): DrawnShape {
  const centre = pair(values, 'centre', 0)
  const radii = (values['radii'] as Point | undefined) ?? [1 / 3, 1 / 3]
  const turn = Number(values['turn'] ?? 0)
  const soft = Number(values['softness'] ?? 0.1)
  const angle = (turn * Math.PI) / 180
  const round = ([a, b]: Point): Point[] =>
    Array.from({ length: 73 }, (_, k): Point => {
      const [x, y] = [Math.cos((k * Math.PI) / 36) * a, Math.sin((k * Math.PI) / 36) * b]
      return [centre[0] + x * Math.cos(angle) - y * Math.sin(angle), centre[1] + x * Math.sin(angle) + y * Math.cos(angle)]
    })
  const ring = (by: number) => line(round([Math.max(0.001, radii[0] + by), Math.max(0.001, radii[1] + by)]).map(shown))
  const axis = (index: 0 | 1, sign: number): ShapeHandle => {
    const way: Point = index === 0 ? [Math.cos(angle) * sign, Math.sin(angle) * sign] : [-Math.sin(angle) * sign, Math.cos(angle) * sign]
    const at: Point = [centre[0] + way[0] * radii[index], centre[1] + way[1] * radii[index]]
    return {
      id: `radius ${index} ${sign}`,
      words: index === 0 ? 'width' : 'height',
      at,
      on: shown(at),
      look: 'point',
      moved: (_, by) => {
        const grown = Math.max(0.001, radii[index] + by[0] * way[0] + by[1] * way[1])
        return { radii: index === 0 ? [grown, radii[1]] : [radii[0], grown] }
      },
    }
  }
  const reach = radii[0] + 0.06
  const tip: Point = [centre[0] + Math.cos(angle - Math.PI / 4) * reach, centre[1] + Math.sin(angle - Math.PI / 4) * reach]
  return {
    line: `${ring(0)}Z`,
    feathers: soft > 0.004 ? [ring(soft / 2), ...(soft / 2 < Math.min(...radii) ? [ring(-soft / 2)] : [])].map((one) => `${one}Z`) : [],
    arms: [`M${shown(centre).join(' ')}L${shown(tip).join(' ')}`],
    handles: [
      axis(0, 1),
      axis(0, -1),
      axis(1, 1),
      axis(1, -1),
      {
        id: 'turn',
        words: 'turn',
        at: tip,
        on: shown(tip),
        look: 'ring',
        moved: (_, by) => {
          const to = [tip[0] + by[0] - centre[0], tip[1] + by[1] - centre[1]] as Point
          const made = (Math.atan2(to[1], to[0]) * 180) / Math.PI + 45
          return { turn: ((made + 540) % 360) - 180 }
        },
      },
    ],
    middle: centre,
    shifted: (by) => ({ centre: plus(centre, by) }),
  }
}

function gradient(values: Values, shown: (point: Point) => Point): DrawnShape {
  const full = pair(values, 'full', 0)
  const none = (values['none'] as Point | undefined) ?? [0.25, 0.25]
  const way: Point = [none[0] - full[0], none[1] - full[1]]
  const long = Math.hypot(...way) || 1
  const across: Point = [(-way[1] / long) * 3, (way[0] / long) * 3]
  const bar = (at: Point) => line([[at[0] - across[0], at[1] - across[1]] as Point, plus(at, across)].map(shown))
  const end = (name: 'full' | 'none', at: Point): ShapeHandle => ({ id: name, words: name === 'full' ? 'full at' : 'none at', at, on: shown(at), look: name === 'full' ? 'point' : 'corner', moved: (_, by) => ({ [name]: plus(at, by) }) })
  return {
    line: bar(full),
    feathers: [bar(none)],
    arms: [`M${shown(full).join(' ')}L${shown(none).join(' ')}`],
    handles: [end('full', full), end('none', none)],
    middle: full,
    shifted: (by) => ({ full: plus(full, by), none: plus(none, by) }),
  }
}
