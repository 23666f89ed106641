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

/** @param shown from the shape's own plane to the screen */
export function handlesOf(kind: string, values: Values, shown: (point: Point) => Point): DrawnShape {
  if (kind === 'outline') return outline(values, shown)
  return kind === 'gradient' ? gradient(values, shown) : ellipse(values, shown)
}

function outline(values: Values, shown: (point: Point) => Point): DrawnShape {
  const points = ((values['points'] as number[][] | undefined) ?? []).map(read)
  const [move, scale, pivot] = [pair(values, 'move', 0), pair(values, 'scale', 1), pair(values, 'pivot', 0)]
  const turn = Number(values['turn'] ?? 0)
  const map = placing(move, turn, scale, pivot)
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
  const middle = plus(pivot, move)
  const arm = mappedOff([0, 0], [ARM, 0], placing([0, 0], turn, [Math.max(scale[0], scale[1]), Math.max(scale[0], scale[1])], [0, 0]))
  const tip = plus(middle, arm)
  const transform: ShapeHandle[] = [
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
  return {
    line: path(points, placed),
    feathers: feathered.map((side) => `${line(beside(points, far(side)).map(placed))}Z`),
    arms: [`M${shown(middle).join(' ')}L${shown(tip).join(' ')}`, ...arms.map((handle) => `M${placed((points[Number(handle.id.split(' ')[1])] as ShapePoint).at).join(' ')}L${handle.on.join(' ')}`)],
    handles: [...transform, ...arms, ...corners],
    middle,
    shifted: (by) => ({ move: plus(move, by) }),
    added: (to) => {
      const { edge, share } = nearest(points, mapped(to, back))
      return { values: keep(split(points, edge, share)), id: `point ${edge + 1}` }
    },
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
      axis(0, 1), axis(0, -1), axis(1, 1), axis(1, -1),
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
